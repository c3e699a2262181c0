package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Operation;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.table.Field;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.work.Beside;
import fixshelf.work.Figure;
import fixshelf.work.LineEffect;
import fixshelf.work.LostValue;
import fixshelf.work.Mending;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import fixshelf.work.PreviewRow;
import fixshelf.work.ReadNotes;
import fixshelf.work.Sample;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "preview",
        mixinStandardHelpOptions = true,
        description = "Show what each line of a job does, and rows as of a line.")
final class PreviewCommand extends JobOption {
    private static final int MOST_LOST = 20;

    @Option(names = "--line", paramLabel = "N", description = "Rows as of this line; the last when left out.")
    int line;

    @Option(names = "--rows", paramLabel = "N", defaultValue = "10", description = "How many rows to print.")
    int rows = 10;

    @Option(
            names = "--view",
            paramLabel = "VIEW",
            defaultValue = "all",
            description =
                    "all, changed, leaving, added, lost, or a report of the line, such as without_match: which rows.")
    String view = "all";

    @Option(
            names = "--spread",
            description = "Look at rows from the whole file, at equal distances, instead of the first 50,000.")
    boolean spread;

    @Option(
            names = "--beside",
            paramLabel = "N",
            description = "The rows as of another line beside them, by where they come from.")
    int beside;

    private List<Problem> later = List.of();

    @Override
    public Integer call() {
        wantCount("--rows", rows);
        return onJob(this::plan, this::preview);
    }

    /// The job, where no line up to the one that is looked at has a problem; those of later lines and of outputs are
    /// told beside the rows.
    private Outcome<PlannedJob> plan(Shelf shelf, JobPage job) {
        Outcome<PlannedJob> drafted = PlannedJob.draft(shelf, job, set);
        List<Problem> wrong =
                drafted.problems().stream().filter(Problem::isError).toList();
        int last = line == 0 ? job.lines().size() : Math.max(line, beside);
        if (wrong.stream().anyMatch(p -> lineOf(job, p) <= last)) {
            return Outcome.failed(drafted.problems());
        }
        later = wrong;
        return drafted.value().map(Outcome::of).orElse(drafted);
    }

    /// The number of the line that a problem is about; of an output one more than all lines, 0 where it is of neither.
    private static int lineOf(JobPage job, Problem problem) {
        for (int i = 0; i < job.lines().size(); i++) {
            if (problem.where().span().isWithin(job.lines().get(i).span())) {
                return i + 1;
            }
        }
        boolean ofOutput =
                job.outputs().stream().anyMatch(o -> problem.where().span().isWithin(o.span()));
        return ofOutput ? job.lines().size() + 1 : 0;
    }

    private int preview(Shelf shelf, PlannedJob planned) {
        int last = planned.plan().steps().size();
        if (line > last || line < 0 || beside > last || beside < 0) {
            int wrong = line > last || line < 0 ? line : beside;
            err().println("The job has " + last + " lines, there is no line " + wrong + ".");
            return Output.WRONG_USE;
        }
        Outcome<Preview> opened = Preview.open(planned.source());
        if (!opened.isPresent()) {
            return Output.problems(out(), err(), opened.problems(), json);
        }
        try (Preview preview = opened.get()) {
            preview.choose(spread ? Sample.SPREAD : Sample.FIRST);
            int at = line == 0 ? last : line;
            return beside == 0 ? print(shelf, planned, preview, at) : printBeside(planned, preview, at);
        }
    }

    private int print(Shelf shelf, PlannedJob planned, Preview preview, int at) {
        Outcome<List<LineEffect>> effects = preview.look(planned);
        Optional<Preview.View> wanted = Stream.of(Preview.View.values())
                .filter(v -> v.name().equalsIgnoreCase(view))
                .findFirst();
        Optional<Operation.Report> report = wanted.isEmpty() ? planned.report(at, view) : Optional.empty();
        if (wanted.isEmpty() && report.isEmpty()) {
            return unknownView(planned, at);
        }
        Outcome<List<PreviewRow>> page = report.isPresent()
                ? preview.rows(planned, report.get(), 0, rows)
                : preview.rows(planned, at, wanted.orElseThrow(), 0, rows);
        if (!effects.isPresent() || !page.isPresent()) {
            return Output.problems(out(), err(), effects.isPresent() ? page.problems() : effects.problems(), json);
        }
        List<LineEffect> shown = effects.get().stream()
                .filter(e -> later.isEmpty() || e.line() <= at)
                .toList();
        List<Problem> stops =
                Stream.concat(later.stream(), stops(planned, preview)).toList();
        List<Column> columns = report.map(r -> r.relation().shape().columns())
                .orElseGet(() -> Preview.fields(planned, at, wanted.orElseThrow()).stream()
                        .map(Field::column)
                        .toList());
        if (json) {
            ObjectNode node = Output.object()
                    .put("job", planned.job().name())
                    .put("source", planned.source().file().toString())
                    .put("rows_looked_at", preview.rows())
                    .put("sample", preview.sample().name().toLowerCase(Locale.ROOT));
            Effects.json(node, shown);
            ReadNotes.of(shelf, preview, planned).forEach(node.putArray("notes")::add);
            ArrayNode watched = node.putArray("figures");
            List<List<Figure>> figures = preview.figures(planned).value().orElse(List.of());
            for (int i = 0; i < figures.size(); i++) {
                int number = i + 1;
                figures.get(i).forEach(f -> f.groups().forEach(g -> {
                    ObjectNode figure = watched.addObject().put("line", number).put("name", f.name());
                    for (int key = 0; key < f.by().size(); key++) {
                        figure.withObject("/within")
                                .put(f.by().get(key), g.key().get(key));
                    }
                    figure.put("value", g.value() == null ? null : g.value().toString());
                }));
            }
            ArrayNode lost = node.putArray("lost");
            preview.lost(planned, at, MOST_LOST).value().orElse(List.of()).forEach(l -> lost.addObject()
                    .put("column", l.column())
                    .put("value", l.value())
                    .put("rows", l.rows()));
            ArrayNode array = node.putArray("rows");
            page.get().forEach(r -> row(array.addObject(), r, columns));
            Output.problems(node, stops);
            Output.json(out(), node);
            return stops.isEmpty() ? Output.FINE : Output.PROBLEMS;
        }
        List<List<Figure>> figures = preview.figures(planned).value().orElse(List.of());
        Effects.print(out(), shelf, planned, shown, figures);
        shown.stream().filter(e -> e.line() > 1 && e.valuesLost() > 0).forEach(e -> {
            List<LostValue> lost =
                    preview.lost(planned, e.line(), MOST_LOST).value().orElse(List.of());
            out().println("line " + e.line() + " loses " + LostValue.list(lost)
                    + (lost.size() == MOST_LOST ? "; …" : ""));
        });
        ReadNotes.of(shelf, preview, planned).forEach(out()::println);
        out().println();
        out().println("as of line " + at + ", based on " + preview.rowsInWords());
        List<List<String>> table = new ArrayList<>();
        table.add(Stream.concat(
                        Stream.of("row"), columns.stream().map(Column::name).map(Output::cell))
                .toList());
        page.get().forEach(r -> table.add(texts(r)));
        Output.table(out(), table);
        if (view.equals("near_misses")) {
            Mending.of(shelf, preview, planned, at).value().orElse(List.of()).forEach(m -> out().println(
                            "To mend it, " + m.sentence() + "."));
        }
        return Output.problems(out(), err(), stops, false);
    }

    /// The tables after two lines beside each other.
    private int printBeside(PlannedJob planned, Preview preview, int at) {
        Outcome<Beside> both = Beside.of(preview, planned, at, beside);
        Outcome<List<PreviewRow>> page = both.then(b -> b.rows(preview, 0, rows));
        if (!page.isPresent()) {
            return Output.problems(out(), err(), page.problems(), json);
        }
        Beside found = both.get();
        List<Column> columns =
                found.columns().stream().map(Beside.Shown::column).toList();
        if (json) {
            ObjectNode node = Output.object()
                    .put("job", planned.job().name())
                    .put("line", found.line())
                    .put("other", found.other())
                    .put("rows_looked_at", preview.rows())
                    .put("rows", found.rows())
                    .put("cells_that_differ", found.differing())
                    .put("only_at_line", found.onlyLine())
                    .put("only_at_other", found.onlyOther());
            ArrayNode array = node.putArray("table");
            page.get().forEach(r -> row(array.addObject(), r, columns));
            Output.json(out(), node);
            return Output.FINE;
        }
        out().println("line " + found.line() + " beside line " + found.other() + ", based on " + preview.rowsInWords()
                + ": " + found.sentence());
        List<List<String>> table = new ArrayList<>();
        table.add(Stream.concat(
                        Stream.of("row"), columns.stream().map(Column::name).map(Output::cell))
                .toList());
        page.get().forEach(r -> table.add(texts(r)));
        Output.table(out(), table);
        return Output.FINE;
    }

    private int unknownView(PlannedJob planned, int at) {
        List<String> known = new ArrayList<>(List.of("all", "changed", "leaving", "added", "lost"));
        planned.plan().steps().get(at - 1).reports().forEach(r -> known.add(r.name()));
        err().println("Line " + at + " has no view " + view + ". It has " + String.join(", ", known) + ".");
        return Output.WRONG_USE;
    }

    /// What would stop a run before it writes anything: rows that do not fit.
    private static Stream<Problem> stops(PlannedJob planned, Preview preview) {
        boolean leftOut = planned.source().options().leaveOutBadRows();
        return preview.careful().stream()
                .filter(c -> c.badCount() > 0 && !leftOut)
                .map(c -> c.problem(planned.source()));
    }

    static List<String> texts(PreviewRow row) {
        List<String> texts = new ArrayList<>();
        String mark =
                switch (row.mark()) {
                    case NONE -> "";
                    case STAYS -> " stays";
                    case LEAVES -> " leaves";
                    case ONLY_LATER -> " new";
                };
        texts.add(row.number() + mark);
        row.cells()
                .forEach(c -> texts.add(
                        c.changed() && c.was() != c.value()
                                ? shown(c.was()) + " ⇒ " + shown(c.value())
                                : shown(c.value())));
        return texts;
    }

    private static String shown(@Nullable Object value) {
        return Output.cell(value);
    }

    static void row(ObjectNode node, PreviewRow row, List<Column> columns) {
        node.put("row", row.number());
        switch (row.mark()) {
            case NONE -> {}
            case STAYS -> node.put("stays", true);
            case LEAVES -> node.put("stays", false);
            case ONLY_LATER -> node.put("new", true);
        }
        for (int i = 0; i < columns.size(); i++) {
            Object value = row.cells().get(i).value();
            node.put(columns.get(i).name(), value == null ? null : Literals.bare(value));
        }
    }
}
