package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.plan.Line;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.table.Lineage;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// A table fix tried on a dataset: a job that reads the dataset and calls the fix, once with each number of its lines.
public final class TableTrial {
    private TableTrial() {}

    /// A table to try it on: a dataset, or the lines of a job before the one that calls the fix.
    ///
    /// @param name as it is chosen
    /// @param lines what makes the table; the first of them reads
    /// @param call the line that calls the fix, where there is one
    public record On(String name, List<JobPage.PlacedLine> lines, Optional<Line> call) {
        public On {
            lines = List.copyOf(lines);
        }
    }

    /// What a fix of that name can be tried on: first what jobs call it on, then every dataset. A loader reads its own
    /// table: with the arguments of each dataset and job that calls it, or with some of your own.
    public static List<On> tables(Shelf shelf, String fix) {
        List<On> all = new ArrayList<>();
        if (shelf.loader(fix).isPresent()) {
            shelf.datasets().forEach(d -> d.call()
                    .filter(c -> c.loader().equalsIgnoreCase(fix))
                    .ifPresent(c -> all.add(
                            new On("as " + d.name(), List.of(), Optional.of(new Line(fix, shelf.arguments(c)))))));
            shelf.jobs().forEach(j -> j.firstLine()
                    .filter(l -> l.call().equalsIgnoreCase(fix))
                    .ifPresent(l -> all.add(new On("as in " + j.name(), List.of(), Optional.of(l)))));
            all.add(new On("with arguments of your own", List.of(), Optional.of(new Line(fix, Map.of()))));
            return all;
        }
        for (JobPage job : shelf.jobs()) {
            for (int i = 1; i < job.lines().size(); i++) {
                Line line = job.lines().get(i).line();
                if (line.call().equalsIgnoreCase(fix)) {
                    String name = job.name() + " before line " + (i + 1);
                    all.add(new On(name, job.lines().subList(0, i), Optional.of(line)));
                }
            }
        }
        shelf.datasets()
                .forEach(d -> all.add(new On(
                        d.name(),
                        List.of(new JobPage.PlacedLine(Line.readDataset(d.name()), "", new Span(0, 0))),
                        Optional.empty())));
        return all;
    }

    /// The jobs, the first of which does not call the fix; each has the problems of its plan beside it.
    ///
    /// @param arguments what stands in the blanks of the fix
    public static Outcome<List<PlannedJob>> plans(
            Shelf shelf, TableFixPage page, On on, Map<String, Written> arguments) {
        List<PlannedJob> plans = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        Line call = new Line(page.callOfLines(), arguments);
        List<JobPage.PlacedLine> before = new ArrayList<>(on.lines());
        if (page.isLoader()) {
            Outcome<Line> read = shelf.reading(page, arguments);
            if (!read.isPresent()) {
                return Outcome.failed(read.problems());
            }
            before = List.of(new JobPage.PlacedLine(read.get(), "", new Span(0, 0)));
        }
        for (int lines = 0; lines <= page.lines().size(); lines++) {
            List<JobPage.PlacedLine> job = new ArrayList<>(before);
            if (lines > 0) {
                job.add(new JobPage.PlacedLine(call, "", new Span(0, 0)));
            }
            JobPage trial = new JobPage(
                    page.file(),
                    page.source(),
                    "trial of " + page.name(),
                    page.title(),
                    "",
                    Map.of(),
                    job,
                    List.of(),
                    "",
                    List.of());
            Shelf partly = shelf.with(lines == page.lines().size() ? page : page.upTo(lines));
            Outcome<PlannedJob> planned = PlannedJob.draft(partly, trial, Map.of());
            if (!planned.isPresent()) {
                return Outcome.failed(planned.problems());
            }
            if (planned.problems().stream().anyMatch(Problem::isError)) {
                problems.addAll(planned.problems());
                break;
            }
            plans.add(planned.get());
        }
        return Outcome.of(plans, problems);
    }

    /// A case of the first rows of a table: those rows, and what the fix makes of them.
    public static Outcome<TableExample> caseOf(
            Shelf shelf, TableFixPage page, On on, Map<String, Written> arguments, int rows) {
        if (page.isLoader()) {
            return caseOfLoader(shelf, page, on, arguments, rows);
        }
        List<JobPage.PlacedLine> some = new ArrayList<>(on.lines());
        some.add(new JobPage.PlacedLine(
                Line.of("first_rows", "count", Written.word(String.valueOf(rows))), "", new Span(0, 0)));
        return plans(shelf, page, new On(on.name(), some, on.call()), arguments).then(plans -> {
            PlannedJob planned = plans.getLast();
            return Preview.open(planned.source()).then(preview -> {
                try (preview) {
                    return preview.grid(planned, some.size()).then(given -> preview.grid(
                                    planned, planned.plan().steps().size())
                            .map(gives -> new TableExample("", table(given), "", table(gives))));
                }
            });
        });
    }

    /// A case of the first rows that a loader reads.
    private static Outcome<TableExample> caseOfLoader(
            Shelf shelf, TableFixPage page, On on, Map<String, Written> arguments, int rows) {
        return plans(shelf, page, on, arguments)
                .then(plans -> Preview.sample(plans.getLast().source(), rows).then(preview -> {
                    try (preview) {
                        PlannedJob planned = plans.getLast();
                        return preview.grid(planned, 1).then(given -> preview.grid(
                                        planned, planned.plan().steps().size())
                                .map(gives -> new TableExample("", table(given), "", table(gives))));
                    }
                }));
    }

    static TableExample.Table table(Grid grid) {
        List<String> heading = grid.columns().stream()
                .map(c -> c.name()
                        + (c.type().equals(Type.TEXT) ? "" : ": " + c.type().label()))
                .toList();
        List<List<String>> rows = new ArrayList<>();
        for (List<@Nullable Object> row : grid.rows()) {
            List<String> cells = new ArrayList<>();
            row.forEach(v -> cells.add(Literals.print(v)));
            rows.add(cells);
        }
        return new TableExample.Table(heading, rows);
    }

    /// What each line did, out of what the jobs of a trial did.
    ///
    /// @param whole the effects of the lines of each job
    /// @param loads whether they are of a loader, whose first line reads, and is counted
    public static List<LineEffect> effects(List<PlannedJob> plans, List<List<LineEffect>> whole, boolean loads) {
        List<LineEffect> effects = new ArrayList<>();
        int first = loads ? 1 : 0;
        if (loads) {
            effects.add(whole.getFirst().getLast());
        }
        for (int line = 1; line < plans.size(); line++) {
            LineEffect before = whole.get(line - 1).getLast();
            LineEffect after = whole.get(line).getLast();
            effects.add(new LineEffect(
                    line + first,
                    before.rowsAfter(),
                    after.rowsAfter(),
                    Math.max(0, before.rowsAfter() - after.rowsAfter()),
                    0,
                    Lineage.Rows.ANY,
                    columns(plans.get(line - 1), plans.get(line)),
                    Math.max(0, after.changes() - (line == 1 ? 0 : before.changes())),
                    0,
                    after.valuesLost(),
                    Optional.empty(),
                    List.of(),
                    false));
        }
        return effects;
    }

    private static LineEffect.Columns columns(PlannedJob before, PlannedJob after) {
        List<String> was = before.plan().columns().stream().map(Column::name).toList();
        List<String> is = after.plan().columns().stream().map(Column::name).toList();
        return new LineEffect.Columns(
                was.size(),
                is.size(),
                is.stream().filter(n -> !was.contains(n)).toList(),
                was.stream().filter(n -> !is.contains(n)).toList(),
                0);
    }
}
