package fixshelf.desktop;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// All problems of the pages of a shelf and of their lines, each with where it is, and a way there.
final class ProblemsPage {
    private ProblemsPage() {}

    static Region of(Frame frame, List<Problem> problems) {
        VBox page = Ui.column("notice", Ui.label("Problems", "title"));
        for (Problem problem : problems) {
            String place = problem.where().source().name() + ", line "
                    + problem.where().position().line();
            Button way = Ui.button(Command.of(place, "", () -> goTo(frame, problem)), "plain");
            way.setMinWidth(Region.USE_PREF_SIZE);
            page.getChildren()
                    .add(new VBox(2, way, Ui.wrapped(problem.sentence(), problem.isError() ? "problem" : "soft")));
        }
        page.getChildren().add(Ui.label("Of a dataset the page datasets/….yaml is mended in a text editor.", "soft"));
        return Ui.page(page);
    }

    /// To the page that a problem is about; of a job, to the line.
    private static void goTo(Frame frame, Problem problem) {
        Shelf shelf = frame.workbench().orElseThrow().shelf();
        Path file = shelf.root().resolve(problem.where().source().name());
        shelf.fixes().stream().filter(f -> f.file().equals(file)).findFirst().ifPresent(f -> frame.showFix(f.name()));
        shelf.tableFixes().stream()
                .filter(t -> t.file().equals(file))
                .findFirst()
                .ifPresent(t -> frame.showFix(t.name()));
        shelf.datasets().stream()
                .filter(d -> d.file().equals(file))
                .findFirst()
                .ifPresent(d -> frame.showDataset(d.name()));
        shelf.jobs().stream().filter(j -> j.file().equals(file)).findFirst().ifPresent(j -> {
            int at = problem.where().span().start();
            long before = j.lines().stream().filter(l -> l.span().start() <= at).count();
            frame.showJob(file);
            frame.jobsPlace().chosen(Math.max(1, (int) before));
            frame.jobsPlace().focus();
        });
    }
}
