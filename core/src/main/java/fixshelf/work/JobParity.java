package fixshelf.work;

import fixshelf.check.CaseResult;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.Grid;
import fixshelf.engine.Stop;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.shelf.Shelf;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/// What came of a job in a language: its code run over the first rows of the source, and compared, row by row and
/// cell by cell, with what the job gives here.
///
/// @param rows how many rows of the source were taken
public record JobParity(String job, Language language, Verdict verdict, int rows) {
    /// So many rows of the source are taken, at most.
    public static final int ROWS = 500;

    private static final int AT_ONCE = 2;

    /// Whether the rows are the same.
    public sealed interface Verdict {}

    /// All rows that come out are the same.
    public record Same(int rows) implements Verdict {}

    /// A check is broken there as it is here, so that no rows come out.
    public record Breaks(int line) implements Verdict {}

    /// The first cell that differs; `row` counts the rows that come out, from 1.
    public record Differs(
            int row,
            String column,
            @Nullable Object expected,
            @Nullable Object got) implements Verdict {}

    /// Another number of rows comes out.
    public record OtherRows(int expected, int got) implements Verdict {}

    /// The language gave an error.
    public record Stopped(String why) implements Verdict {}

    /// Lines that the language cannot say, or a value that it cannot hold, and why.
    public record CannotSay(List<String> why) implements Verdict {
        public CannotSay {
            why = List.copyOf(why);
        }
    }

    public record NotRun(String why) implements Verdict {}

    public boolean differs() {
        return verdict instanceof Differs || verdict instanceof OtherRows || verdict instanceof Stopped;
    }

    /// Whether the answer is the same as here.
    public boolean isSame() {
        return verdict instanceof Same || verdict instanceof Breaks;
    }

    public String mark() {
        return switch (verdict) {
            case Same _, Breaks _ -> "● same";
            case Differs _, OtherRows _ -> "▲ differs";
            case Stopped _ -> "▲ stops";
            case CannotSay(List<String> why) -> "○ cannot say " + (why.size() == 1 ? "it" : why.size() + " lines");
            case NotRun _ -> "· not run";
        };
    }

    /// One word for machines.
    public String word() {
        return switch (verdict) {
            case Same _, Breaks _ -> "same";
            case Differs _, OtherRows _, Stopped _ -> "differs";
            case CannotSay _ -> "cannot_say";
            case NotRun _ -> "not_run";
        };
    }

    /// What stands behind the mark, as a sentence.
    public String detail() {
        return switch (verdict) {
            case Same(int out) ->
                String.format(
                        "%,d of the first %,d %s %s out, all the same",
                        out, rows, rows == 1 ? "row" : "rows", out == 1 ? "comes" : "come");
            case Breaks(int line) -> "Line " + line + " is broken by rows, here and there, so that nothing comes out";
            case Differs(int row, String column, Object expected, Object got) ->
                column + " of row " + row + " is " + CaseResult.shown(got) + ", not " + CaseResult.shown(expected);
            case OtherRows(int expected, int got) ->
                String.format("%,d %s, not %,d", got, got == 1 ? "row comes out" : "rows come out", expected);
            case Stopped(String why) -> why;
            case CannotSay(List<String> why) -> String.join(" ", why);
            case NotRun(String why) -> why;
        };
    }

    /// Runs the job in every engine that is here, beside each other; `heard` is told each result as it comes.
    public static Outcome<List<JobParity>> check(
            Shelf shelf, PlannedJob planned, List<FixEngine> engines, Stop stop, Consumer<JobParity> heard) {
        return asked(shelf, planned).map(a -> inAll(a, engines, stop, heard));
    }

    /// The job over the first rows of its source, and what it gives here.
    static Outcome<Asked> asked(Shelf shelf, PlannedJob planned) {
        JobCode code = planned.code(shelf);
        if (code.result().isEmpty()) {
            return Outcome.failed(Problem.about(
                    Code.NOT_LOOKED_AT,
                    planned.job().name(),
                    "The job gives a table without columns, in which there is nothing to compare.",
                    "Keep a column."));
        }
        return Preview.sample(planned.source(), ROWS).then(preview -> {
            try (preview) {
                int last = planned.plan().resultLine();
                Map<String, List<List<@Nullable String>>> rows = new HashMap<>();
                Outcome<Grid> expected = preview.read(planned).then(source -> {
                    rows.put(code.first().name(), texts(source));
                    for (Relation.Source other : planned.plan().others()) {
                        preview.other(planned, other).value().ifPresent(g -> rows.putIfAbsent(other.name(), texts(g)));
                    }
                    return preview.grid(planned, last);
                });
                return expected.then(e -> broken(preview, planned, code).map(b -> new Asked(code, rows, e.rows(), b)));
            }
        });
    }

    /// The first line with a check that these rows break.
    private static Outcome<Optional<JobCode.Line>> broken(Preview preview, PlannedJob planned, JobCode code) {
        return preview.look(planned).map(effects -> code.lines().stream()
                .filter(l -> effects.get(l.number() - 1).reports().stream().anyMatch(r -> r.breaks() && r.rows() > 0))
                .findFirst());
    }

    private static List<List<@Nullable String>> texts(Grid grid) {
        List<List<@Nullable String>> rows = new ArrayList<>();
        for (List<@Nullable Object> row : grid.rows()) {
            List<@Nullable String> texts = new ArrayList<>();
            row.forEach(v -> texts.add(v == null ? null : v.toString()));
            rows.add(texts);
        }
        return rows;
    }

    private static List<JobParity> inAll(Asked asked, List<FixEngine> engines, Stop stop, Consumer<JobParity> heard) {
        JobCode code = asked.code();
        int taken = asked.rows().get(code.first().name()).size();
        List<JobParity> results = new ArrayList<>();
        try (ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE)) {
            List<Future<Verdict>> running = new ArrayList<>();
            for (FixEngine engine : engines) {
                running.add(threads.submit(() -> {
                    Verdict verdict =
                            stop.during(() -> verdicts(engine, List.of(asked)).getFirst());
                    heard.accept(new JobParity(code.name(), engine.language(), verdict, taken));
                    return verdict;
                }));
            }
            for (int i = 0; i < engines.size(); i++) {
                results.add(new JobParity(code.name(), engines.get(i).language(), result(running.get(i)), taken));
            }
        }
        return results;
    }

    private static Verdict result(Future<Verdict> running) {
        try {
            return running.get();
        } catch (ExecutionException e) {
            return new NotRun(String.valueOf(e.getCause().getMessage()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return new NotRun("stopped");
        }
    }

    /// A job, the rows of its sources, and those that have to come out.
    ///
    /// @param broken the line whose check these rows break
    record Asked(
            JobCode code,
            Map<String, List<List<@Nullable String>>> rows,
            List<List<@Nullable Object>> expected,
            Optional<JobCode.Line> broken) {
        Asked(JobCode code, Map<String, List<List<@Nullable String>>> rows, List<List<@Nullable Object>> expected) {
            this(code, rows, expected, Optional.empty());
        }
    }

    /// What comes of jobs in an engine, which is started once for all of them.
    static List<Verdict> verdicts(FixEngine engine, List<Asked> asked) {
        List<Verdict> verdicts = new ArrayList<>();
        List<FixEngine.Job> said = new ArrayList<>();
        for (Asked one : asked) {
            Outcome<String> text = engine.language().job(one.code());
            verdicts.add(
                    text.isPresent()
                            ? new NotRun("")
                            : new CannotSay(
                                    text.problems().stream().map(p -> p.what()).toList()));
            if (text.isPresent()) {
                said.add(new FixEngine.Job(one.code(), one.rows()));
            }
        }
        FixEngine.Presence presence = engine.presence();
        List<Answer.OfJob> answers = presence.isHere() ? engine.runAll(said) : List.of();
        for (int i = 0, next = 0; i < asked.size(); i++) {
            if (verdicts.get(i) instanceof NotRun) {
                verdicts.set(
                        i,
                        presence.isHere()
                                ? verdict(engine, asked.get(i), answers.get(next++))
                                : new NotRun(presence.sentence()));
            }
        }
        return verdicts;
    }

    private static Verdict verdict(FixEngine engine, Asked asked, Answer.OfJob answer) {
        Optional<JobCode.Line> broken =
                asked.broken().filter(_ -> engine.language().stopsAtChecks());
        return switch (answer) {
            case Answer.OfJob.Stopped(String why)
            when broken.filter(l -> why.endsWith(l.stop())).isPresent() ->
                new Breaks(broken.get().number());
            case Answer.OfJob.Rows _
            when broken.isPresent() ->
                new Stopped(
                        "It goes on, although rows break line " + broken.get().number() + ".");
            case Answer.OfJob.Unsaid(List<String> why) -> new CannotSay(why);
            case Answer.OfJob.Stopped(String why) ->
                engine.language().isLimit(why)
                        ? new CannotSay(List.of("It is beyond what it can hold: " + why))
                        : new Stopped(why);
            case Answer.OfJob.Rows(List<List<@Nullable Object>> got) ->
                firstDifference(asked.code(), asked.expected(), got).orElseGet(() -> new Same(got.size()));
        };
    }

    private static Optional<Verdict> firstDifference(
            JobCode code, List<List<@Nullable Object>> expected, List<List<@Nullable Object>> got) {
        for (int r = 0; r < Math.min(expected.size(), got.size()); r++) {
            for (int c = 0; c < code.result().size(); c++) {
                @Nullable Object here = expected.get(r).get(c);
                @Nullable Object there = got.get(r).get(c);
                if (!CaseResult.same(here, there)) {
                    return Optional.of(new Differs(r + 1, code.result().get(c).name(), here, there));
                }
            }
        }
        return expected.size() == got.size()
                ? Optional.empty()
                : Optional.of(new OtherRows(expected.size(), got.size()));
    }
}
