package fixshelf.desktop;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.problem.Problem;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// All problems of the pages of a shelf, each with where it is, and a way there.
final class ProblemsPage {
    private ProblemsPage() {}

    static Region of(List<Problem> problems, Consumer<Problem> goTo) {
        VBox page = Ui.column("notice", Ui.label("Problems", "title"));
        for (Problem problem : problems) {
            String place = problem.where().source().name() + ", line "
                    + problem.where().position().line();
            page.getChildren().add(Ui.button(Command.of(place, "", () -> goTo.accept(problem)), "plain"));
            page.getChildren().add(Ui.wrapped(problem.sentence(), problem.isError() ? "problem" : "soft"));
        }
        page.getChildren().add(Ui.label("What is no fix or job is mended in a text editor.", "soft"));
        return Ui.page(page);
    }
}
