package fixshelf.desktop;

import fixshelf.demo.DemoShelf;
import fixshelf.demo.ReadyMade;
import fixshelf.desktop.workbench.Background;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Preview;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/// The ways from the first page to a shelf, in a window.
final class FirstWays implements FirstPage.Ways {
    /// The line of the demo's job that makes amounts numbers.
    private static final int AMOUNT_LINE = 5;

    private final Frame frame;
    private final Background background;

    FirstWays(Frame frame, Background background) {
        this.frame = frame;
        this.background = background;
    }

    @Override
    public void open(Path folder) {
        frame.open(folder);
    }

    @Override
    public void make(Path folder, boolean readyMade) {
        background.ask(
                Background.Request.now("first", "making the shelf"),
                () -> PageFiles.initShelf(folder, named(folder)).then(f -> readyMade ? withFixes(f) : Outcome.of(f)),
                frame::made);
    }

    private static Outcome<Path> withFixes(Path folder) {
        return ShelfReader.read(folder).then(ReadyMade::takeAll).map(_ -> folder);
    }

    private static String named(Path folder) {
        return String.valueOf(folder.getFileName());
    }

    @Override
    public void bring(Path file, Path folder) {
        background.ask(
                Background.Request.now("first", "making the shelf"),
                () -> shelfFor(file, folder),
                shelf -> frame.made(shelf, _ -> {
                    frame.enter(frame.jobsPlace());
                    frame.jobsPlace().begin(file);
                }));
    }

    /// The shelf in a folder, made where there is none; a problem where there is no file to read in it.
    private static Outcome<Path> shelfFor(Path file, Path folder) {
        if (!Files.isRegularFile(file)) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING, file.toString(), "There is no file " + file + ".", "Look at the path."));
        }
        return Files.isRegularFile(folder.resolve(ShelfReader.SETTINGS))
                ? Outcome.of(folder)
                : PageFiles.emptyShelf(folder, named(folder));
    }

    @Override
    public void demo(String what) {
        Path folder = Path.of(System.getProperty("user.home"), ".fixshelf", "demo");
        background.ask(
                Background.Request.now("demo", "making the demo"),
                () -> DemoShelf.at(folder),
                made -> frame.open(made, _ -> tryIn(made, what)));
    }

    private void tryIn(Path demo, String what) {
        switch (what) {
            case "fix" -> frame.showFix("squeeze_spaces");
            case "leaving" -> {
                frame.showJob(DemoShelf.job(demo));
                frame.jobsPlace().choose(Integer.MAX_VALUE, Preview.View.LEAVING);
            }
            case "life" -> {
                frame.showJob(DemoShelf.job(demo));
                frame.jobsPlace().choose(AMOUNT_LINE, Preview.View.CHANGED);
                frame.jobsPlace().showLife("parts_cost");
            }
            default -> {}
        }
    }

    @Override
    public Optional<Path> chooseFolder(String title) {
        return frame.chooseFolder(title);
    }

    @Override
    public Optional<Path> chooseFile() {
        return frame.chooseFile();
    }
}
