package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.engine.Stop;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Consumer;

/// Shows that the same inputs give the same answers in another language, by running both. The reference is the first
/// engine of [fixshelf.engine.FixEngines].
public final class Parity {
    private static final int SHRINKINGS = 12;
    private static final int AT_ONCE = 3;
    private static final int MOST_TOGETHER = 1_000;

    private final FixEngine reference;
    private final int values;
    private final long seed;
    private final Stop stop;

    private record Asked(Subject subject, Evaluation evaluation, List<Answer> expected) {}

    private Parity(FixEngine reference, int values, long seed, Stop stop) {
        this.reference = reference;
        this.values = values;
        this.seed = seed;
        this.stop = stop;
    }

    /// Checks every subject in every engine, on its cases, the edges of its types and `values` made-up rows. Engines
    /// run beside each other; one that fails does not stop the others. `heard` is told each result as it comes.
    public static List<ParityResult> check(
            FixEngine reference, List<FixEngine> engines, List<Subject> subjects, Settings settings) {
        Parity parity = new Parity(reference, settings.values(), settings.seed(), settings.stop());
        List<Asked> asked = parity.ask(subjects);
        List<ParityResult> results = new ArrayList<>();
        try (ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE)) {
            List<Future<List<ParityResult>>> running = engines.stream()
                    .map(e -> threads.submit(() -> settings.stop().during(() -> parity.in(e, asked, settings.heard()))))
                    .toList();
            for (int i = 0; i < running.size(); i++) {
                results.addAll(parity.result(running.get(i), engines.get(i), asked));
            }
        }
        return results;
    }

    /// How a check is made.
    ///
    /// @param values made-up rows for each subject
    /// @param stop ends the check; what was not reached is not run
    public record Settings(int values, long seed, Stop stop, Consumer<ParityResult> heard) {
        public static final long SEED = 20_260_207L;

        public static Settings of(int values) {
            return new Settings(values, SEED, new Stop(), _ -> {});
        }
    }

    private List<ParityResult> result(Future<List<ParityResult>> running, FixEngine engine, List<Asked> asked) {
        try {
            return running.get();
        } catch (ExecutionException e) {
            String why = String.valueOf(e.getCause().getMessage());
            return asked.stream().map(a -> notRun(a, engine, why)).toList();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return asked.stream().map(a -> notRun(a, engine, "stopped")).toList();
        }
    }

    private static ParityResult notRun(Asked asked, FixEngine engine, String why) {
        return new ParityResult(asked.subject(), engine.language(), new ParityResult.NotRun(why), 0, 0);
    }

    /// That the language cannot write the subject, with what is fixed as in its first row: so much is known without
    /// running it.
    private static Optional<ParityResult> unsaid(Asked asked, FixEngine engine) {
        Definition fix = asked.subject().fix();
        List<Expr> arguments = new ArrayList<>();
        for (int p = 0; p < fix.parameters().size(); p++) {
            Parameter parameter = fix.parameters().get(p);
            Expr.Literal first = asked.evaluation().rows().getFirst().get(p);
            arguments.add(parameter.fixed() ? first : new Expr.Name(parameter.name(), parameter.type()));
        }
        return engine.language().expression(Inliner.call(fix, arguments)).problems().stream()
                .findFirst()
                .map(p -> new ParityResult(
                        asked.subject(), engine.language(), new ParityResult.CannotSay(p.what()), 0, 0));
    }

    private List<Asked> ask(List<Subject> subjects) {
        List<Evaluation> evaluations = subjects.stream()
                .map(s -> new Evaluation(s.fix(), s.rows(values, seed)))
                .toList();
        List<List<Answer>> expected = stop.during(() -> reference.run(evaluations));
        List<Asked> asked = new ArrayList<>();
        for (int i = 0; i < subjects.size(); i++) {
            asked.add(new Asked(subjects.get(i), evaluations.get(i), expected.get(i)));
        }
        return asked;
    }

    private List<ParityResult> in(FixEngine engine, List<Asked> asked, Consumer<ParityResult> heard) {
        FixEngine.Presence presence = engine.presence();
        List<ParityResult> results = new ArrayList<>();
        if (!presence.isHere()) {
            asked.forEach(a -> results.add(unsaid(a, engine).orElseGet(() -> notRun(a, engine, presence.sentence()))));
            results.forEach(heard);
            return results;
        }
        for (List<Asked> batch : batches(asked)) {
            long start = System.nanoTime();
            List<List<Answer>> answers =
                    engine.run(batch.stream().map(Asked::evaluation).toList());
            long millis = (System.nanoTime() - start) / 1_000_000 / batch.size();
            for (int i = 0; i < batch.size(); i++) {
                ParityResult result = compare(engine, batch.get(i), answers.get(i), millis);
                results.add(result);
                heard.accept(result);
            }
        }
        return results;
    }

    /// Enough subjects together that a process is worth its start, few enough that results come in while it runs.
    private List<List<Asked>> batches(List<Asked> asked) {
        int size = Math.max(1, Math.min(40, 40_000 / Math.max(1, values)));
        List<List<Asked>> batches = new ArrayList<>();
        for (int from = 0; from < asked.size(); from += size) {
            batches.add(asked.subList(from, Math.min(asked.size(), from + size)));
        }
        return batches;
    }

    private ParityResult compare(FixEngine engine, Asked asked, List<Answer> answers, long millis) {
        Map<String, Integer> unsaid = new HashMap<>();
        int beyond = 0;
        int differing = 0;
        Optional<Integer> first = Optional.empty();
        for (int row = 0; row < answers.size(); row++) {
            if (asked.expected().get(row) instanceof Answer.NotSaid(String why)) {
                // Without an answer to compare with there is none to be wrong.
                unsaid.merge(why, 1, Integer::sum);
                beyond++;
                continue;
            }
            switch (answers.get(row)) {
                case Answer.NotSaid(String why) -> {
                    unsaid.merge(why, 1, Integer::sum);
                    beyond++;
                }
                case Answer.Failed(String why) when engine.language().isLimit(why) -> beyond++;
                case Answer.Failed _, Answer.Value _ -> {
                    if (differ(asked.expected().get(row), answers.get(row))) {
                        differing++;
                        first = first.isPresent() ? first : Optional.of(row);
                    }
                }
            }
        }
        ParityResult.Verdict verdict = new ParityResult.Same(answers.size(), beyond);
        if (first.isPresent()) {
            verdict = smallest(engine, asked, answers, first.get(), differing);
        } else if (beyond == answers.size() && !unsaid.isEmpty()) {
            verdict = new ParityResult.CannotSay(unsaid.keySet().iterator().next());
        }
        return new ParityResult(asked.subject(), engine.language(), verdict, answers.size(), millis);
    }

    private static boolean differ(Answer expected, Answer got) {
        return !(expected instanceof Answer.Value(Object a)
                && got instanceof Answer.Value(Object b)
                && CaseResult.same(a, b));
    }

    private ParityResult.Differs smallest(FixEngine engine, Asked asked, List<Answer> answers, int row, int differing) {
        List<Expr.Literal> input = asked.evaluation().rows().get(row);
        ParityResult.Differs found =
                new ParityResult.Differs(input, asked.expected().get(row), answers.get(row), differing);
        for (int i = 0; i < SHRINKINGS && !stop.isStopped(); i++) {
            Optional<ParityResult.Differs> smaller = smaller(engine, asked, found);
            if (smaller.isEmpty()) {
                break;
            }
            found = smaller.get();
        }
        return found;
    }

    private Optional<ParityResult.Differs> smaller(FixEngine engine, Asked asked, ParityResult.Differs found) {
        List<List<Expr.Literal>> rows = smallerRows(asked.subject().fix(), found.input());
        if (rows.isEmpty()) {
            return Optional.empty();
        }
        List<Evaluation> evaluation = List.of(new Evaluation(asked.subject().fix(), rows));
        List<Answer> expected = reference.run(evaluation).getFirst();
        List<Answer> got = engine.run(evaluation).getFirst();
        for (int i = 0; i < rows.size(); i++) {
            boolean refused = got.get(i) instanceof Answer.NotSaid
                    || got.get(i) instanceof Answer.Failed(String why)
                            && engine.language().isLimit(why);
            if (!refused && differ(expected.get(i), got.get(i))) {
                return Optional.of(
                        new ParityResult.Differs(rows.get(i), expected.get(i), got.get(i), found.differing()));
            }
        }
        return Optional.empty();
    }

    /// Rows with smaller values, the smallest first: all arguments smaller together where that are not too many rows,
    /// otherwise one after the other.
    private static List<List<Expr.Literal>> smallerRows(Definition fix, List<Expr.Literal> row) {
        List<List<Expr.Literal>> choices = new ArrayList<>();
        long together = 1;
        for (int p = 0; p < row.size(); p++) {
            List<Expr.Literal> values = new ArrayList<>();
            if (!fix.parameters().get(p).fixed()) {
                values.addAll(MadeUpValues.smaller(row.get(p)));
            }
            values.add(row.get(p));
            choices.add(values);
            together = Math.min(MOST_TOGETHER + 1, together * values.size());
        }
        List<Ranked> rows = new ArrayList<>(List.of(new Ranked(0, List.of())));
        for (int p = 0; p < row.size(); p++) {
            List<Expr.Literal> values = choices.get(p);
            List<Ranked> longer = new ArrayList<>();
            for (Ranked begun : rows) {
                for (int i = 0; i < values.size(); i++) {
                    boolean alone = begun.values().equals(row.subList(0, p));
                    boolean same = i == values.size() - 1;
                    if (together <= MOST_TOGETHER || alone || same) {
                        longer.add(begun.with(i, values.get(i)));
                    }
                }
            }
            rows = longer;
        }
        return rows.stream()
                .sorted(Comparator.comparingInt(Ranked::rank))
                .map(Ranked::values)
                .filter(r -> !r.equals(row))
                .toList();
    }

    /// A row, or its beginning, and how far its values are from the smallest.
    private record Ranked(int rank, List<Expr.Literal> values) {
        Ranked with(int more, Expr.Literal value) {
            List<Expr.Literal> longer = new ArrayList<>(values);
            longer.add(value);
            return new Ranked(rank + more, longer);
        }
    }
}
