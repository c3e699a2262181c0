package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Column;
import fixshelf.type.Visible;
import fixshelf.work.LineEffect;
import fixshelf.work.LostValue;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import fixshelf.work.PreviewRow;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "preview",
        mixinStandardHelpOptions = true,
        description = "Show what each line of a job does, and rows as of a line.")
final class PreviewCommand extends ShelfOption {
    private static final int MOST_LOST = 20;

    @Parameters(paramLabel = "JOB", description = "The job.")
    String name = "";

    @Option(names = "--line", paramLabel = "N", description = "Rows as of this line; the last when left out.")
    int line;

    @Option(names = "--rows", paramLabel = "N", defaultValue = "10", description = "How many rows to print.")
    int rows = 10;

    @Option(
            names = "--view",
            paramLabel = "VIEW",
            defaultValue = "ALL",
            description = "all, changed or leaving: which rows.")
    Preview.View view = Preview.View.ALL;

    @Option(
            names = "--set",
            paramLabel = "NAME=VALUE",
            description = "A value for a parameter of the job or of the environment.")
    Map<String, String> set = new HashMap<>();

    @Override
    public Integer call() {
        wantCount("--rows", rows);
        return onShelf(this::preview);
    }

    private int preview(Shelf shelf) {
        Optional<JobPage> job = shelf.job(name);
        if (job.isEmpty()) {
            return unknown("job", name, shelf.jobs().stream().map(JobPage::name).toList());
        }
        Outcome<PlannedJob> planned = PlannedJob.plan(shelf, job.get(), set);
        if (!planned.isPresent()) {
            return Output.problems(out(), err(), planned.problems(), json);
        }
        int last = planned.get().plan().steps().size();
        if (line > last || line < 0) {
            err().println("The job has " + last + " lines, there is no line " + line + ".");
            return Output.WRONG_USE;
        }
        Outcome<Preview> opened = Preview.open(planned.get().source());
        if (!opened.isPresent()) {
            return Output.problems(out(), err(), opened.problems(), json);
        }
        try (Preview preview = opened.get()) {
            return print(shelf, planned.get(), preview, line == 0 ? last : line);
        }
    }

    private int print(Shelf shelf, PlannedJob planned, Preview preview, int at) {
        Outcome<List<LineEffect>> effects = preview.look(planned.plan());
        Outcome<List<PreviewRow>> page = preview.rows(planned.plan(), at, view, 0, rows);
        if (!effects.isPresent() || !page.isPresent()) {
            return Output.problems(out(), err(), effects.isPresent() ? page.problems() : effects.problems(), json);
        }
        List<Column> columns = planned.plan().steps().get(at - 1).columns();
        if (json) {
            ObjectNode node = Output.object()
                    .put("job", planned.job().name())
                    .put("source", planned.source().file().toString())
                    .put("rows_looked_at", preview.rows());
            Effects.json(node, effects.get());
            ArrayNode lost = node.putArray("lost");
            preview.lost(planned.plan(), at, MOST_LOST)
                    .value()
                    .orElse(List.of())
                    .forEach(l -> lost.addObject()
                            .put("column", l.column())
                            .put("value", l.value())
                            .put("rows", l.rows()));
            ArrayNode array = node.putArray("rows");
            page.get().forEach(r -> row(array.addObject(), r, columns));
            Output.problems(node, stops(planned, preview));
            Output.json(out(), node);
            return stops(planned, preview).isEmpty() ? Output.FINE : Output.PROBLEMS;
        }
        Effects.print(out(), shelf, planned, effects.get());
        effects.get().stream().filter(e -> e.valuesLost() > 0).forEach(e -> {
            List<LostValue> lost =
                    preview.lost(planned.plan(), e.line(), MOST_LOST).value().orElse(List.of());
            out().println("line " + e.line() + " loses " + LostValue.list(lost)
                    + (lost.size() == MOST_LOST ? "; …" : ""));
        });
        out().println();
        out().println("as of line " + at + ", based on " + rowsLookedAt(preview));
        List<List<String>> table = new ArrayList<>();
        table.add(java.util.stream.Stream.concat(
                        java.util.stream.Stream.of("row"), columns.stream().map(Column::name))
                .toList());
        page.get().forEach(r -> table.add(texts(r)));
        Output.table(out(), table);
        return Output.problems(out(), err(), stops(planned, preview), false);
    }

    /// What would stop a run before it writes anything: rows that do not fit.
    private static List<Problem> stops(PlannedJob planned, Preview preview) {
        boolean leftOut = planned.source().options().leaveOutBadRows();
        return preview.careful().stream()
                .filter(c -> c.badCount() > 0 && !leftOut)
                .map(c -> c.problem(planned.source()))
                .toList();
    }

    private static String rowsLookedAt(Preview preview) {
        boolean all = preview.staged() < Preview.STAGED_ROWS && preview.rows() == preview.staged();
        return (all ? "all " : "the first ") + String.format("%,d", preview.rows()) + " rows";
    }

    private static List<String> texts(PreviewRow row) {
        List<String> texts = new ArrayList<>();
        String mark =
                switch (row.mark()) {
                    case NONE -> "";
                    case STAYS -> " stays";
                    case LEAVES -> " leaves";
                };
        texts.add(row.number() + mark);
        row.cells().forEach(c -> texts.add(c.changed() ? shown(c.was()) + " ⇒ " + shown(c.value()) : shown(c.value())));
        return texts;
    }

    private static String shown(@Nullable Object value) {
        return value == null ? "∅" : value instanceof String text ? Visible.markOddities(text) : value.toString();
    }

    private static void row(ObjectNode node, PreviewRow row, List<Column> columns) {
        node.put("row", row.number());
        switch (row.mark()) {
            case NONE -> {}
            case STAYS -> node.put("stays", true);
            case LEAVES -> node.put("stays", false);
        }
        for (int i = 0; i < columns.size(); i++) {
            Object value = row.cells().get(i).value();
            node.put(columns.get(i).name(), value == null ? null : value.toString());
        }
    }
}
