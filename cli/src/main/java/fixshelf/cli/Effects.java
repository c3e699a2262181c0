package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.plan.Written;
import fixshelf.shelf.Shelf;
import fixshelf.table.Lineage;
import fixshelf.work.Figure;
import fixshelf.work.LineEffect;
import fixshelf.work.PlannedJob;
import java.io.PrintWriter;
import java.util.List;
import java.util.Optional;

/// Prints what the lines of a job did.
final class Effects {
    private static final int MOST = 62;

    private Effects() {}

    static void print(PrintWriter out, Shelf shelf, PlannedJob planned, List<LineEffect> effects) {
        print(out, shelf, planned, effects, List.of());
    }

    /// @param figures those that are watched, after each line; none where nobody looked
    static void print(
            PrintWriter out, Shelf shelf, PlannedJob planned, List<LineEffect> effects, List<List<Figure>> figures) {
        for (LineEffect effect : effects) {
            Line line = planned.job().lines().get(effect.line() - 1).line();
            // With the values of this time in its path.
            Line read = line.call().equals(Line.READ_FILE)
                    ? line.with(
                            "file",
                            Optional.of(Written.word(planned.source().options().path())))
                    : planned.plan().steps().get(effect.line() - 1).line();
            String sentence = Output.line(Sentences.plain(read, shelf.callables())) + (line.rest() ? " (at rest)" : "");
            // Nothing is cut: what follows a long sentence stands on a line of its own.
            boolean fits = sentence.length() <= MOST;
            String margin = effect.margin().isEmpty() || fits
                    ? effect.margin()
                    : System.lineSeparator() + " ".repeat(MOST + 7) + effect.margin();
            out.printf(fits ? "%3d  %-" + MOST + "s  %s%n" : "%3d  %s%s%n", effect.line(), sentence, margin);
            String reason = planned.job().lines().get(effect.line() - 1).reason();
            effect.told().forEach(t -> out.println("     " + t));
            if (effect.line() <= figures.size()) {
                figures.get(effect.line() - 1).forEach(f -> out.println("     " + f.sentence()));
            }
            if (!reason.isBlank()) {
                out.println("     because: " + reason.strip());
            }
        }
    }

    static void json(ObjectNode node, List<LineEffect> effects) {
        var array = node.putArray("lines");
        for (LineEffect e : effects) {
            ObjectNode line = array.addObject()
                    .put("line", e.line())
                    .put("rows_before", e.rowsBefore())
                    .put("rows_after", e.rowsAfter())
                    .put("rows_left", e.left())
                    .put("rows_added", e.added())
                    .put("rows_merged", e.rows() == Lineage.Rows.MERGED)
                    .put("columns_before", e.columnsBefore())
                    .put("columns_after", e.columnsAfter())
                    .put("cells_changed", e.cellsChanged())
                    .put("values_lost", e.valuesLost());
            e.rowsWithMatch().ifPresent(n -> line.put("rows_with_match", n));
            ObjectNode reports = line.putObject("reports");
            e.reports().forEach(r -> reports.put(r.name(), r.rows()));
        }
    }
}
