package fixshelf.desktop.shelf;

import fixshelf.check.PromiseResult;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Promise;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The promises of a fix and how each is kept. The smallest value that breaks one becomes a case with one key.
final class PromiseLines {
    private PromiseLines() {}

    /// A line for each promise; empty for a fix that promises nothing.
    static VBox of(Workbench workbench, FixPage fix) {
        workbench.wantPromises(fix);
        VBox lines = Ui.column("promises");
        for (Promise promise : fix.promises()) {
            Optional<PromiseResult> result = results(workbench, fix.file())
                    .filter(r -> r.promise().equals(promise))
                    .findFirst();
            boolean holds = result.map(PromiseResult::holds).orElse(true);
            String words = result.map(PromiseResult::sentence).orElse(promise.sentence());
            lines.getChildren().add(Ui.wrapped((holds ? "● " : "▲ ") + words, holds ? "holds" : "fails"));
        }
        Command keep = keepBroken(workbench, fix::file);
        if (keep.enabled().getAsBoolean()) {
            lines.getChildren().add(Ui.button(keep, "usual", "small"));
        }
        return lines;
    }

    /// Adds the value that breaks the first broken promise to the cases, with the result that it has now.
    static Command keepBroken(Workbench workbench, Supplier<@Nullable Path> file) {
        return Command.of("Make a case of the value that breaks it", "Shortcut+B", () -> broken(workbench, file.get())
                        .ifPresent(r -> workbench.edit(
                                r.page().file(),
                                FixEdits.addCase(page(workbench, r), r.asCase(FixEdits.heading(page(workbench, r)))))))
                .when(() -> broken(workbench, file.get()).isPresent());
    }

    /// The first that is broken by a value which is not yet a case.
    private static Optional<PromiseResult> broken(Workbench workbench, @Nullable Path file) {
        return results(workbench, file)
                .filter(r -> !r.holds() && r.values() > 0)
                .filter(r -> {
                    FixPage page = page(workbench, r);
                    return !FixEdits.rows(page).contains(r.asCase(FixEdits.heading(page)));
                })
                .findFirst();
    }

    private static FixPage page(Workbench workbench, PromiseResult result) {
        return workbench.fix(result.page().file()).orElse(result.page());
    }

    private static Stream<PromiseResult> results(Workbench workbench, @Nullable Path file) {
        return workbench.promisesProperty().get().stream()
                .filter(r -> r.page().file().equals(file));
    }
}
