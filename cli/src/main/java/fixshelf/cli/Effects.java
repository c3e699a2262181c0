package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Sentences;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.LineEffect;
import java.io.PrintWriter;
import java.util.List;

/// Prints what the lines of a job did.
final class Effects {
    private Effects() {}

    static void print(PrintWriter out, Shelf shelf, JobPage job, List<LineEffect> effects) {
        for (LineEffect effect : effects) {
            String sentence = Sentences.plain(job.lines().get(effect.line() - 1).line(), name -> shelf.fix(name)
                    .map(f -> f.sentence()));
            out.printf("%3d  %-62s %s%n", effect.line(), sentence, effect.margin());
        }
    }

    static void json(ObjectNode node, List<LineEffect> effects) {
        var array = node.putArray("lines");
        effects.forEach(e -> array.addObject()
                .put("line", e.line())
                .put("rows_before", e.rowsBefore())
                .put("rows_after", e.rowsAfter())
                .put("columns_before", e.columnsBefore())
                .put("columns_after", e.columnsAfter())
                .put("cells_changed", e.cellsChanged())
                .put("values_lost", e.valuesLost()));
    }
}
