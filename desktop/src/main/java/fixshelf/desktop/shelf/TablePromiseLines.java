package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.Blank;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TablePromise;
import fixshelf.work.TablePromiseResult;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.layout.VBox;

/// The promises of a table fix and how each is kept, with the smallest table that breaks one.
final class TablePromiseLines {
    private TablePromiseLines() {}

    /// A line for each promise, and the table that breaks it.
    static VBox of(Workbench workbench, TableFixPage fix) {
        workbench.wantPromises(fix);
        VBox lines = Ui.column("promises");
        Optional<List<TablePromiseResult>> results = workbench.promisesOf(fix);
        for (TablePromise promise : fix.promises()) {
            Optional<TablePromiseResult> result = results.flatMap(
                    all -> all.stream().filter(r -> r.promise().equals(promise)).findFirst());
            boolean holds = result.map(TablePromiseResult::holds).orElse(true);
            String mark = result.isEmpty() ? "… " : holds ? "● " : "▲ ";
            String words = result.map(TablePromiseResult::sentence).orElse(promise.sentence());
            lines.getChildren().add(Ui.wrapped(mark + words, result.isEmpty() ? "soft" : holds ? "holds" : "fails"));
            result.flatMap(TablePromiseResult::broken)
                    .ifPresent(b -> lines.getChildren().add(TableCases.pair(b)));
        }
        return lines;
    }

    /// Makes a case of the table that breaks the first broken promise, with what comes out of it now.
    static Command keepBroken(Workbench workbench, Supplier<Optional<TableFixPage>> page, Consumer<String> edit) {
        return Command.of("Make a case of the table that breaks it", "Shortcut+B", () -> page.get()
                        .ifPresent(p -> broken(workbench, p)
                                .ifPresent(b -> edit.accept(
                                        TableFixEdits.addCase(p, b.title(), arguments(p, b), b.given(), b.gives())))))
                .when(() -> page.get().flatMap(p -> broken(workbench, p)).isPresent());
    }

    /// The table that breaks a promise, and is no case yet.
    private static Optional<TableExample> broken(Workbench workbench, TableFixPage page) {
        return workbench.promisesOf(page).stream()
                .flatMap(List::stream)
                .flatMap(r -> r.broken().stream())
                .filter(b -> page.cases().stream()
                        .noneMatch(c -> c.given().rows().equals(b.given().rows())))
                .findFirst();
    }

    /// What stands in the blanks of the call, as it is typed.
    private static Map<String, String> arguments(TableFixPage page, TableExample example) {
        Map<String, Written> written = JobPages.call(example.call()).blanks();
        Map<String, String> said = new LinkedHashMap<>();
        for (Blank<?> blank : page.parameters()) {
            Optional.ofNullable(written.get(blank.name()))
                    .ifPresent(w -> said.put(blank.name(), TablePlace.say(blank, w)));
        }
        return said;
    }
}
