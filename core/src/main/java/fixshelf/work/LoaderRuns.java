package fixshelf.work;

import fixshelf.engine.Stop;
import fixshelf.fetch.Consent;
import fixshelf.fetch.Copies;
import fixshelf.fetch.CopyWriter;
import fixshelf.fetch.Source;
import fixshelf.language.tree.Names;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// A loader called for each row of a table: one call after another, each different one once, and all rows that they
/// give under each other, with the arguments in front. A call that fails loses no other.
final class LoaderRuns implements Source {
    static final int MOST_CALLS = 10_000;
    private static final int SHOWN = 5;

    private final Shelf shelf;
    private final DatasetPage page;
    private final DatasetPage.Call call;
    private final DatasetPage.ForEach each;
    private final List<Made> made = new ArrayList<>();
    private final List<Problem> failed = new ArrayList<>();
    /// The calls that gave no row, in words.
    private final List<String> without = new ArrayList<>();
    private List<String> names = List.of();
    private LoadedRows.Count count = LoadedRows.Count.NONE;

    /// A call that could be planned.
    private record Made(Map<String, @Nullable String> arguments, PlannedJob planned) {}

    private LoaderRuns(Shelf shelf, DatasetPage page) {
        this.shelf = shelf;
        this.page = page;
        this.call = page.call().orElseThrow();
        this.each = call.each().orElseThrow();
    }

    /// The datasets that are being opened, as their tables of calls may be such datasets too.
    private static final ScopedValue<List<String>> OPENING = ScopedValue.newInstance();

    static Outcome<SourceFile> open(Shelf shelf, DatasetPage page) {
        LoaderRuns runs = new LoaderRuns(shelf, page);
        List<String> opening = new ArrayList<>(OPENING.orElse(List.of()));
        boolean again = opening.contains(page.name());
        opening.add(page.name());
        return again
                ? Outcome.failed(runs.problem(
                        Code.CYCLE,
                        "Datasets read each other in a circle: " + String.join(" → ", opening) + ".",
                        "Break it: let one of them read a file."))
                : ScopedValue.where(OPENING, List.copyOf(opening)).call(() -> open(shelf, page, runs));
    }

    private static Outcome<SourceFile> open(Shelf shelf, DatasetPage page, LoaderRuns runs) {
        return runs.calls().then(calls -> {
            Optional<Problem> stopped = runs.plan(calls);
            if (stopped.isPresent()) {
                return Outcome.failed(stopped.get());
            }
            Optional<Instant> oldest = runs.made.stream()
                    .flatMap(m -> m.planned().source().copied().stream())
                    .flatMap(c -> c.at().stream())
                    .min(Instant::compareTo);
            return Copies.openMade(shelf.root(), page.name(), runs.key(), runs, oldest, runs::told);
        });
    }

    /// The arguments of each call, each different one once, in the order of the table.
    private Outcome<Set<Map<String, @Nullable String>>> calls() {
        JobPage reading = new JobPage(
                page.file(),
                page.source(),
                "rows of " + each.table(),
                each.table(),
                "",
                Map.of(),
                List.of(new JobPage.PlacedLine(Line.readDataset(each.table()), "", call.span())),
                List.of(),
                "",
                List.of());
        return PlannedJob.draft(shelf, reading, Map.of(), List.of(page.name())).then(this::calls);
    }

    private Outcome<Set<Map<String, @Nullable String>>> calls(PlannedJob table) {
        List<String> columns = table.plan().columns().stream().map(Column::name).toList();
        Optional<String> missing = each.from().values().stream()
                .filter(c -> columns.stream().noneMatch(c::equalsIgnoreCase))
                .findFirst();
        if (missing.isPresent()) {
            return Outcome.failed(problem(
                    Code.NO_SUCH_COLUMN,
                    "There is no column " + missing.get() + " in " + each.table() + ".",
                    Names.suggestColumn(missing.get(), columns)));
        }
        Set<Map<String, @Nullable String>> calls = new LinkedHashSet<>();
        try {
            new LoadedRows(table).each(row -> {
                Map<String, @Nullable String> arguments = new LinkedHashMap<>();
                each.from().forEach((parameter, column) -> {
                    int at = 0;
                    while (!columns.get(at).equalsIgnoreCase(column)) {
                        at++;
                    }
                    arguments.put(parameter, row.get(at));
                });
                if (calls.size() <= MOST_CALLS) {
                    calls.add(arguments);
                }
            });
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
        return calls.size() > MOST_CALLS
                ? Outcome.failed(problem(
                        Code.ARGUMENTS,
                        String.format("%s asks for more than %,d different calls.", each.table(), MOST_CALLS),
                        "Make a job of fewer rows, and name that."))
                : Outcome.of(calls);
    }

    /// Plans every call, which reads what is in no file; the problem is one of all calls.
    private Optional<Problem> plan(Set<Map<String, @Nullable String>> calls) {
        for (Map<String, @Nullable String> arguments : calls) {
            Stop.check();
            if (arguments.containsValue(null)) {
                failed.add(problem(
                        Code.ARGUMENTS, words(arguments) + ": an argument is missing.", "Leave out such rows before."));
                continue;
            }
            Map<String, Written> all = new LinkedHashMap<>(shelf.arguments(call));
            arguments.forEach((n, v) -> all.put(n, Written.word(Objects.requireNonNull(v))));
            Outcome<PlannedJob> planned = PlannedJob.plan(shelf, shelf.loaded(page, call, all), Map.of());
            Optional<Problem> wrong =
                    planned.problems().stream().filter(Problem::isError).findFirst();
            if (wrong.isPresent() && wrong.get().code().isElsewhere()) {
                // That is no failure of a call, but of all.
                return wrong;
            }
            wrong.or(() -> planned.value().flatMap(this::otherColumns))
                    .ifPresentOrElse(p -> failed(arguments, p), () -> made.add(new Made(arguments, planned.get())));
        }
        return stop();
    }

    private void failed(Map<String, @Nullable String> arguments, Problem why) {
        failed.add(problem(why.code(), words(arguments) + ": " + why.what(), why.todo()));
    }

    /// Why there is no table at all.
    private Optional<Problem> stop() {
        if (made.isEmpty() && failed.isEmpty()) {
            return Optional.of(problem(
                    Code.FILE_EMPTY,
                    each.table() + " has no rows, so that nothing is called.",
                    "Look at its rows, or name another table."));
        }
        if (made.isEmpty() || !failed.isEmpty() && !each.leaveOut()) {
            int all = made.size() + failed.size();
            String why = failed.stream().limit(SHOWN).map(Problem::what).collect(Collectors.joining(" "));
            return Optional.of(problem(
                    failed.getFirst().code(),
                    failed.size() + " of " + all + (all == 1 ? " call fails. " : " calls fail. ") + why
                            + (failed.size() > SHOWN ? " …" : ""),
                    "Mend the rows of " + each.table()
                            + ", or write `failed: leave_out`, which tells them and goes on."));
        }
        return Optional.empty();
    }

    /// Why the rows of a call are not put under the others.
    private Optional<Problem> otherColumns(PlannedJob planned) {
        List<String> columns =
                planned.plan().columns().stream().map(Column::name).toList();
        if (names.isEmpty()) {
            names = columns;
        }
        return names.equals(columns)
                ? Optional.empty()
                : Optional.of(problem(
                        Code.NO_SUCH_COLUMN,
                        "it gives other columns than the calls before it: " + String.join(", ", columns) + ".",
                        "Say in the page of the loader what it returns."));
    }

    private static String words(Map<String, @Nullable String> arguments) {
        return arguments.entrySet().stream()
                .map(a -> a.getKey() + " " + Objects.requireNonNullElse(a.getValue(), "∅"))
                .collect(Collectors.joining(", "));
    }

    private Problem problem(Code code, String what, String todo) {
        return Problem.error(code, new Problem.Where(page.source(), call.span()), what, todo);
    }

    private String key() {
        return each + "\n"
                + made.stream().map(m -> new LoadedRows(m.planned()).key()).collect(Collectors.joining("\n"));
    }

    @Override
    public Optional<Consent.Place> place() {
        return Optional.empty();
    }

    @Override
    public String shown() {
        return "Given by " + made.size() + (made.size() == 1 ? " call of " : " calls of ") + call.loader()
                + ", for the rows of " + each.table();
    }

    /// What is told beside the rows, once they are written.
    private String told() {
        String rows = shown() + ": " + count.words() + withoutRows();
        return failed.isEmpty()
                ? rows
                : rows + "; " + failed.size() + (failed.size() == 1 ? " call" : " calls") + " failed and gave no rows: "
                        + failed.stream()
                                .limit(SHOWN)
                                .map(p -> p.what().replaceFirst("\\.$", ""))
                                .collect(Collectors.joining("; "))
                        + (failed.size() > SHOWN ? "; …" : "");
    }

    private String withoutRows() {
        if (without.isEmpty()) {
            return "";
        }
        String which =
                without.stream().limit(SHOWN).collect(Collectors.joining("; ")) + (without.size() > SHOWN ? "; …" : "");
        return "; " + without.size() + (without.size() == 1 ? " call gave" : " calls gave") + " no row"
                + (each.keeps() ? ", and one with the arguments alone stands for it: " : ": ") + which;
    }

    /// A row with the arguments of a call and nothing else, for a call that gave none.
    private List<@Nullable String> alone(List<String> added, Map<String, @Nullable String> arguments) {
        List<@Nullable String> row = new ArrayList<>();
        added.forEach(p -> row.add(arguments.get(p)));
        names.forEach(n -> row.add(arguments.entrySet().stream()
                .filter(a -> a.getKey().equalsIgnoreCase(n))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null)));
        return row;
    }

    @Override
    public void write(Path root, Path to) throws IOException {
        List<String> added = each.from().keySet().stream()
                .filter(p -> names.stream().noneMatch(p::equalsIgnoreCase))
                .toList();
        try (CopyWriter out = new CopyWriter(to)) {
            out.row(Stream.concat(added.stream(), names.stream()).toList());
            for (Made one : List.copyOf(made)) {
                Stop.check();
                boolean[] begun = {false};
                try {
                    count = count.plus(new LoadedRows(one.planned()).each(row -> {
                        List<@Nullable String> whole = new ArrayList<>();
                        added.forEach(p -> whole.add(one.arguments().get(p)));
                        whole.addAll(row);
                        begun[0] = true;
                        try {
                            out.row(whole);
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        }
                    }));
                    if (!begun[0]) {
                        without.add(words(one.arguments()));
                        if (each.keeps()) {
                            out.row(alone(added, one.arguments()));
                        }
                    }
                } catch (ProblemException e) {
                    if (begun[0] || e.problem().code() == Code.CANCELLED) {
                        throw e;
                    }
                    made.remove(one);
                    failed(one.arguments(), e.problem());
                }
            }
            stop().ifPresent(p -> {
                throw new ProblemException(p);
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
