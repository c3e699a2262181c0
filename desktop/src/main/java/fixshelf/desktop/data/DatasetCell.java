package fixshelf.desktop.data;

import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.ReadOptions;
import fixshelf.shelf.DatasetPage;
import fixshelf.source.Age;
import fixshelf.source.SourceFile;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import org.jspecify.annotations.Nullable;

/// A dataset of the list: its name, how much there is to look at, what it is.
final class DatasetCell extends ListCell<DatasetPage> {
    private final DataModel model;

    DatasetCell(DataModel model) {
        this.model = model;
    }

    /// What stands in the place of a dataset while none is chosen.
    static String nothing(Workbench workbench) {
        return workbench.shelf().datasets().isEmpty()
                ? "Here stands what a dataset holds, what is odd in it, and which fixes would help. Bring one in on the left."
                : "Choose a dataset on the left.";
    }

    @Override
    protected void updateItem(@Nullable DatasetPage page, boolean empty) {
        super.updateItem(page, empty);
        if (empty || page == null) {
            setGraphic(null);
            return;
        }
        Optional<DataModel.Seen> known = model.known(page.name());
        Label look = known.map(DatasetCell::toLookAt).orElseGet(() -> Ui.label("", "soft"));
        setGraphic(Ui.column(
                "entry",
                Ui.row("state", Ui.label(page.name(), "dataset-name"), Ui.spring(), look),
                Ui.label(what(page, known), "soft")));
    }

    /// Rows that do not fit come before anything that is odd in those that do.
    private static Label toLookAt(DataModel.Seen seen) {
        if (seen.leftOut() > 0) {
            return Ui.label(Ui.count(seen.leftOut(), "row left out", "rows left out"), "to-look-at");
        }
        return seen.toLookAt() == 0
                ? Ui.label("nothing odd", "soft", "small")
                : Ui.label(seen.toLookAt() + " to look at", "to-look-at");
    }

    private String what(DatasetPage page, Optional<DataModel.Seen> known) {
        String kind = page.options().form().map(ReadOptions.Form::word).orElse("delimited");
        String name = page.call().isPresent()
                ? "by " + page.call().get().loader()
                : kind.equals("delimited") ? "delimited text" : kind.equals("typed") ? "typed in" : kind;
        String size = known.map(s -> Ui.count(s.table().rows(), "row", "rows") + " · "
                        + Ui.count(s.table().columns().size(), "column", "columns"))
                .orElseGet(() -> model.sizeOf(page.name()));
        String age = known.flatMap(s -> s.file().copied())
                .flatMap(SourceFile.Copied::at)
                .map(at -> " · read " + Age.of(at))
                .orElse("");
        return (size.isEmpty() ? name : name + " · " + size) + age;
    }
}
