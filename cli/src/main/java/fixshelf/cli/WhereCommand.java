package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Sentences;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.work.CellLife;
import fixshelf.work.CellLives;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import fixshelf.work.RowPath;
import fixshelf.work.RowPaths;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "where",
        mixinStandardHelpOptions = true,
        description = "Tell what became of one row of a job's source, line by line.")
final class WhereCommand extends JobOption {
    private static final int MOST = 5;

    @Option(names = "--key", paramLabel = "TEXT", description = "The rows of the source that hold this text.")
    String key = "";

    @Option(names = "--column", paramLabel = "NAME", description = "Look for the text in this column only.")
    String column = "";

    @Option(names = "--row", paramLabel = "N", description = "The row of the source with this number, from 1.")
    long row;

    @Option(
            names = "--cell",
            paramLabel = "COLUMN",
            description =
                    "With --row: the life of this cell, from the file to the line of --line, and what becomes of it.")
    String cell = "";

    @Option(
            names = "--line",
            paramLabel = "N",
            description = "With --cell: the line after which the row and the column are meant; else the last.")
    int line;

    @Override
    public Integer call() {
        if (!cell.isEmpty()) {
            return row > 0 && key.isEmpty() ? onJob(this::life) : wrongUse("--cell needs --row N.");
        }
        if (key.isEmpty() == (row == 0)) {
            return wrongUse("Which row? Give --key TEXT or --row N.");
        }
        return onJob(this::where);
    }

    private int wrongUse(String words) {
        err().println(words);
        return Output.WRONG_USE;
    }

    private int life(Shelf shelf, PlannedJob job) {
        int lines = job.plan().steps().size();
        if (line < 0 || line > lines) {
            return wrongUse("There is no line " + line + "; this job has " + lines + ".");
        }
        Outcome<CellLife> life =
                overAllRows(job, (p, preview) -> CellLives.of(preview, p, line == 0 ? lines : line, row, cell));
        if (!life.isPresent()) {
            return Output.problems(out(), err(), life.problems(), json);
        }
        if (json) {
            ObjectNode node = Output.object()
                    .put("job", name)
                    .put("column", life.get().column())
                    .put("file", life.get().file());
            ArrayNode stages = node.putArray("lines");
            life.get().stages().forEach(s -> stages.addObject()
                    .put("job", s.job().isEmpty() ? name : s.job())
                    .put("line", s.line())
                    .put("has_value", s.hasValue())
                    .put("value", s.value() == null ? null : s.value().toString())
                    .put("changed", s.changed())
                    .put("words", s.words()));
            Output.json(out(), node);
            return Output.FINE;
        }
        out().println(life.get().column()
                + (life.get().file().isEmpty() ? "" : ", from " + life.get().file()));
        String of = "";
        for (CellLife.Stage stage : life.get().stages()) {
            if (!stage.job().equals(of)) {
                out().println(stage.job().isEmpty() ? name + ":" : stage.job() + ":");
                of = stage.job();
            }
            String value = !stage.hasValue()
                    ? ""
                    : stage.changed() ? shown(stage.was()) + " ⇒ " + shown(stage.value()) : shown(stage.value());
            out().printf("%3d  %-32s %s%n", stage.line(), value, stage.words());
        }
        return Output.FINE;
    }

    private int where(Shelf shelf, PlannedJob job) {
        Outcome<List<RowPath>> paths = overAllRows(job, this::paths);
        if (!paths.isPresent()) {
            return Output.problems(out(), err(), paths.problems(), json);
        }
        if (json) {
            ArrayNode array = Output.object().putArray("rows");
            paths.get().forEach(p -> node(array.addObject(), p));
            Output.json(out(), Output.object().put("job", name).set("rows", array));
        } else {
            paths.get().forEach(p -> print(shelf, p));
        }
        if (paths.get().isEmpty()) {
            err().println("No row of the source holds " + key + ".");
            return Output.PROBLEMS;
        }
        return Output.FINE;
    }

    private Outcome<List<RowPath>> paths(PlannedJob job, Preview preview) {
        RowPaths follow = new RowPaths(preview, job);
        Outcome<List<Long>> rows = row > 0 ? Outcome.of(List.of(row)) : follow.rowsWith(column, key, MOST);
        return rows.then(all -> {
            List<RowPath> paths = new ArrayList<>();
            for (Long each : all) {
                Outcome<RowPath> path = follow.path(each);
                if (!path.isPresent()) {
                    return Outcome.failed(path.problems());
                }
                paths.add(path.get());
            }
            return Outcome.of(paths);
        });
    }

    private void print(Shelf shelf, RowPath path) {
        out().printf("Row %,d of the source%n", path.row());
        int before = 1;
        for (RowPath.Stop stop : path.stops()) {
            out().printf(
                            "%3d  %s%n",
                            stop.step().number(), Sentences.plain(stop.step().line(), shelf.callables()));
            stop.changes().forEach(c -> out().println(
                            "       " + c.column() + ": " + shown(c.was()) + " ⇒ " + shown(c.now())));
            if (stop.isGone()) {
                out().println("       it leaves here");
            } else if (stop.merged()) {
                out().println("       it is part of row " + places(stop));
            } else if (stop.places().size() > before) {
                out().println("       it becomes rows " + places(stop));
            }
            before = stop.places().size();
        }
        if (path.stops().isEmpty() || !path.stops().getLast().isGone()) {
            String at = path.stops().isEmpty()
                    ? String.valueOf(path.row())
                    : places(path.stops().getLast());
            out().println("     it comes out as row" + (at.contains(",") ? "s " : " ") + at);
        }
    }

    private static String places(RowPath.Stop stop) {
        return stop.places().stream().map(p -> String.format("%,d", p)).collect(Collectors.joining(", "));
    }

    private static String shown(@Nullable Object value) {
        return Output.cell(value);
    }

    private static void node(ObjectNode node, RowPath path) {
        node.put("row", path.row());
        ArrayNode stops = node.putArray("lines");
        for (RowPath.Stop stop : path.stops()) {
            ObjectNode one = stops.addObject()
                    .put("line", stop.step().number())
                    .put("leaves", stop.isGone())
                    .put("merged", stop.merged());
            ArrayNode places = one.putArray("places");
            stop.places().forEach(places::add);
            ArrayNode changes = one.putArray("changes");
            stop.changes().forEach(c -> changes.addObject()
                    .put("column", c.column())
                    .put("was", c.was() == null ? null : c.was().toString())
                    .put("now", c.now() == null ? null : c.now().toString()));
        }
    }
}
