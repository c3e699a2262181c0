package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Ui;
import fixshelf.plan.TableExample;
import fixshelf.type.Visible;
import fixshelf.work.JobParity;
import java.util.List;
import java.util.Optional;
import javafx.geometry.VPos;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// Cases of table fixes as pairs of small tables.
final class TableCases {
    private TableCases() {}

    /// A case with what came of it; nothing while it is run.
    static Region of(TableExample example, Optional<JobParity> result) {
        boolean holds = result.filter(JobParity::isSame).isPresent();
        Label mark = result.isEmpty()
                ? Ui.label("… " + example.title(), "soft")
                : Ui.label(
                        (holds ? "● " : "▲ ")
                                + example.title()
                                + (holds ? "" : ": " + result.get().detail()),
                        holds ? "holds" : "fails");
        mark.setWrapText(true);
        String call = example.call().replaceFirst("^[^:]*:\\s*", "").replaceAll("^\\{|}$", "");
        VBox box = new VBox(4, mark);
        String with = (call.isBlank() ? "" : "with " + call)
                + (example.reads().isEmpty() ? "" : (call.isBlank() ? "" : ", ") + "reads " + example.reads());
        if (!with.isBlank()) {
            box.getChildren().add(Ui.wrapped(with, "soft", "small"));
        }
        box.getChildren().add(pair(example));
        return box;
    }

    private static final double PLACE = 18;

    /// What goes in beside what comes out, or below it where there is no room, or the words of the
    /// problem that it ends in.
    static Region pair(TableExample example) {
        FlowPane tables = new FlowPane(PLACE, 6);
        tables.setRowValignment(VPos.TOP);
        if (example.reads().isEmpty()) {
            tables.getChildren().add(table(example.given()));
        }
        example.others().forEach((name, table) -> tables.getChildren()
                .add(new VBox(2, Ui.label(name, "mono", "small"), table(table))));
        boolean gives = example.stops().isEmpty();
        HBox result = new HBox(
                PLACE,
                Ui.label(gives ? "gives" : "stops", "soft"),
                gives ? table(example.gives()) : Ui.wrapped("“" + example.stops() + "”"));
        tables.getChildren().add(result);
        return tables;
    }

    private static GridPane table(TableExample.Table table) {
        GridPane grid = new GridPane();
        grid.setHgap(18);
        grid.setVgap(3);
        for (int c = 0; c < table.heading().size(); c++) {
            grid.add(Ui.label(table.heading().get(c), "table-head"), c, 0);
        }
        for (int r = 0; r < table.rows().size(); r++) {
            List<String> row = table.rows().get(r);
            for (int c = 0; c < row.size(); c++) {
                String cell = row.get(c);
                grid.add(Ui.label(cell.startsWith("'") ? Visible.markOddities(cell) : cell, "mono"), c, r + 1);
            }
        }
        return grid;
    }
}
