package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.PathField;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.Line;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobEdits;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// What stands in the place of a job while there is none: the ways to the first one.
final class NoJobs {
    private static final int MOST = 20;

    private final Workbench workbench;
    private final Consumer<Path> begun;
    private final VBox datasets = Ui.column("first-words");
    private final Region view;

    /// @param file gets a file that a job is to begin with
    /// @param begun gets the page of a job that was begun
    NoJobs(Workbench workbench, Consumer<Path> file, Consumer<Path> begun) {
        this.workbench = workbench;
        this.begun = begun;
        view = Ui.page(Ui.column(
                "sheet",
                Ui.wrapped("No job yet", "title"),
                Ui.wrapped(
                        "A job is numbered lines on a table: the first reads it, each further one calls a fix or an operation, and what"
                                + " it did stands beside it.",
                        "soft"),
                Ui.label("Begin with a file", "heading"),
                Ui.wrapped(
                        "Drop it on the window, choose one with Ctrl+Shift+O, or type where it is and press Enter: delimited text, a"
                                + " workbook, JSON, Parquet, a database, a PDF.",
                        "soft"),
                new PathField(workbench.background(), "job-file", "the path of a file", file),
                datasets));
        view.getStyleClass().add("left-page");
    }

    Region view() {
        datasets.getChildren().clear();
        List<DatasetPage> all = workbench.shelf().datasets();
        if (!all.isEmpty()) {
            datasets.getChildren().add(Ui.label("Or on a dataset of this shelf", "heading"));
        }
        all.stream().limit(MOST).forEach(d -> datasets.getChildren()
                .add(Ui.row("state", Ui.blank(d.name(), "fix-link", () -> begin(d)))));
        return view;
    }

    private void begin(DatasetPage dataset) {
        Path page = workbench.freeFile("jobs", dataset.name(), ".yaml");
        String job = page.getFileName().toString().replace(".yaml", "");
        String title = JobEdits.titleOf(job);
        workbench.edit(page, JobEdits.newPage(job, title, List.of(Line.readDataset(dataset.name()))));
        begun.accept(page);
    }
}
