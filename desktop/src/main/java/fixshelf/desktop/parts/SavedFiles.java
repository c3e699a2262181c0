package fixshelf.desktop.parts;

import fixshelf.cli.PngDrawing;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Outcome;
import fixshelf.profile.Drawing;
import fixshelf.profile.SavedText;
import fixshelf.profile.SvgDrawing;
import fixshelf.shelf.Shelf;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.stage.FileChooser;

/// What a user saves of what is looked at: lines as delimited text, drawings as pictures. They
/// never replace a file of the shelf.
public final class SavedFiles {
    private final Workbench workbench;
    private final Node inWindow;
    private final BiConsumer<String, Boolean> told;

    /// @param inWindow stands in the window that asks for a file
    /// @param told is told what became of it, and whether that is a problem
    public SavedFiles(Workbench workbench, Node inWindow, BiConsumer<String, Boolean> told) {
        this.workbench = workbench;
        this.inWindow = inWindow;
        this.told = told;
    }

    /// Asks for a file, and writes lines into it.
    public void askForLines(String name, List<List<String>> lines) {
        ask(name, ".csv").ifPresent(file -> lines(file, lines));
    }

    /// Asks for a file, and draws into it.
    public void askForDrawing(Drawing drawing) {
        ask(drawing.title(), ".png").ifPresent(file -> drawing(file, drawing));
    }

    private Optional<Path> ask(String name, String ending) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Where it goes");
        chooser.setInitialFileName(name.replaceAll("[^\\p{L}\\p{N}]+", "_") + ending);
        return Optional.ofNullable(chooser.showSaveDialog(inWindow.getScene().getWindow()))
                .map(File::toPath);
    }

    /// Writes lines into a file.
    public void lines(Path file, List<List<String>> lines) {
        write(file, shelf -> SavedText.write(shelf, file, ".csv", SavedText.delimited(lines), true));
    }

    /// Draws into a file, .svg or .png, for the sheet that is in use.
    void drawing(Path file, Drawing drawing) {
        boolean dark = inWindow.getScene() != null
                && inWindow.getScene().getStylesheets().stream().anyMatch(s -> s.endsWith("tokens-dark.css"));
        write(
                file,
                shelf -> file.toString().endsWith(".svg")
                        ? SavedText.write(shelf, file, ".svg", SvgDrawing.write(drawing, dark), true)
                        : SavedText.write(shelf, file, ".png", PngDrawing.write(drawing, dark), true));
    }

    private void write(Path file, Function<Shelf, Outcome<Path>> work) {
        Shelf shelf = workbench.shelf();
        workbench
                .background()
                .ask(
                        Background.Request.now("saving", "saving " + file.getFileName()),
                        () -> work.apply(shelf),
                        written -> told.accept(
                                written.isPresent()
                                        ? "Saved as " + written.get()
                                        : written.problems().getFirst().sentence(),
                                !written.isPresent()));
    }
}
