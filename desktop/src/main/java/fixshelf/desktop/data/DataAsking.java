package fixshelf.desktop.data;

import fixshelf.desktop.parts.SavedFiles;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.CountSpec;
import fixshelf.profile.Drawing;
import fixshelf.shelf.DatasetPage;
import fixshelf.source.SourceFile;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/// What the pages of *Data* ask for of the dataset that is shown: drawings, counts, comparisons,
/// and files that they are saved as.
final class DataAsking implements ColumnsPage.Asking, CountsPage.Asking, ComparePage.Asking {
    private final Workbench workbench;
    private final DataModel model;
    private final SavedFiles files;
    private final Shown shown;

    /// What is shown, and the pages that are told what was found.
    interface Shown {
        Optional<DataModel.Seen> seen();

        Optional<DatasetPage> dataset();

        CountsPage counts();

        ComparePage compare();

        void lookAgain();
    }

    DataAsking(Workbench workbench, DataModel model, SavedFiles files, Shown shown) {
        this.workbench = workbench;
        this.model = model;
        this.files = files;
        this.shown = shown;
    }

    private void withFile(Consumer<SourceFile> work) {
        shown.seen().map(DataModel.Seen::file).ifPresent(work);
    }

    @Override
    public void overTime(ColumnLook column, ColumnLook days, Consumer<Outcome<Drawing>> done) {
        withFile(file -> model.overTime(file, column, days, done));
    }

    @Override
    public void save(Drawing drawing) {
        files.askForDrawing(drawing);
    }

    @Override
    public void count(CountSpec spec) {
        String based = shown.seen().map(SeenWords::rows).orElse("");
        withFile(file -> model.counts(file, spec, found -> shown.counts().showTable(found, based)));
    }

    @Override
    public void saveNumbers() {
        CountsPage counts = shown.counts();
        counts.title().ifPresent(title -> files.askForLines(title, counts.lines(false)));
    }

    /// Each look at the dataset then tells what is other than these counts.
    @Override
    public void keep() {
        List<String> columns = shown.counts().counted();
        Optional<DatasetPage> page = shown.dataset().filter(_ -> !columns.isEmpty());
        page.ifPresent(p -> withFile(file -> model.keepCounts(workbench.shelf(), p.name(), file, columns, kept -> {
            if (kept.isPresent()) {
                workbench.take(kept.get().dataset(p.name()).orElseThrow());
                shown.lookAgain();
            }
            shown.counts()
                    .tell(
                            kept.isPresent()
                                    ? "Kept in " + p.source().name()
                                            + ": each look at the dataset, and check --data, tell what is other."
                                    : kept.problems().getFirst().sentence(),
                            !kept.isPresent());
        })));
    }

    @Override
    public void words(DataModel.WordList list, Consumer<Outcome<Map<String, String>>> done) {
        model.words(workbench.shelf(), list, done);
    }

    @Override
    public void columns(String other) {
        String name = shown.dataset().map(DatasetPage::name).orElse("");
        withFile(file ->
                model.compareColumns(workbench.shelf(), file, List.of(name, other), shown.compare()::showColumns));
    }

    @Override
    public void rows(String other, List<String> keys) {
        withFile(file -> model.compareRows(workbench.shelf(), file, other, keys, shown.compare()::showRows));
    }

    @Override
    public void save(List<List<String>> lines) {
        files.askForLines("differences", lines);
    }
}
