package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TablePromise;
import fixshelf.shelf.YamlText;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// All of a table fix's page but its lines, edited in place: what it is called, how a line says it, what it is for, its
/// parameters and promises.
final class TableFixWords {
    private static final List<String> TYPES = Stream.concat(
                    Stream.of("column", "columns", "new name", "order", "condition", "table"),
                    ParameterRows.VALUE_TYPES.stream())
            .toList();

    private final Workbench workbench;
    private final Supplier<Optional<TableFixPage>> page;
    private final Consumer<String> edit;
    private final TextField title = new TextField();
    private final Label told = Ui.wrapped("", "soft");
    private final TextField name = new TextField();
    private final TextField reads = new TextField();
    private final TextArea prose = new TextArea();
    private final ParameterRows parameters;
    private final FlowPane promises = new FlowPane(16, 6);
    private final TextField more = new TextField();
    private final VBox kept = new VBox();
    private final VBox head;
    private boolean filling;

    TableFixWords(Workbench workbench, Supplier<Optional<TableFixPage>> page, Consumer<String> edit) {
        this.workbench = workbench;
        this.page = page;
        this.edit = text -> {
            if (!filling) {
                edit.accept(text);
            }
        };
        title.getStyleClass().add("title-field");
        title.setAccessibleText("Title");
        name.getStyleClass().add("mono");
        name.setAccessibleText("Name that a line calls");
        name.setPrefColumnCount(18);
        reads.setAccessibleText("How a line says it");
        reads.setPromptText("how a line says it, with {parameter} for its blanks");
        prose.setAccessibleText("What it is for");
        prose.setPromptText("What it is for, in a sentence or two");
        prose.setWrapText(true);
        prose.setPrefRowCount(3);
        parameters = new ParameterRows(
                () -> page.get().filter(TableFixPage::isLoader).isPresent() ? ParameterRows.SINGLE_TYPES : TYPES,
                0,
                texts -> with(p -> TableFixEdits.setParameters(p, texts)));
        Ui.onLeaving(
                title,
                () -> with(p -> p.title().equals(title.getText().strip())
                        ? p.source().text()
                        : TableFixEdits.setTitle(p, title.getText())));
        Ui.onLeaving(name, this::rename);
        told.managedProperty().bind(told.textProperty().isNotEmpty());
        Ui.onLeaving(reads, () -> field(TableFixPage::reads, "reads", reads));
        Ui.onLeaving(
                prose,
                () -> with(p -> p.prose().equals(prose.getText().strip())
                        ? p.source().text()
                        : TableFixEdits.setProse(p, prose.getText())));
        more.setId("more-table-promise");
        more.setPromptText("unique_by key   filled key");
        more.setAccessibleText("One more promise");
        more.setPrefColumnCount(24);
        more.setOnAction(_ -> turn(more.getText().strip()));
        HBox.setHgrow(reads, Priority.ALWAYS);
        head = new VBox(8, title, Ui.row("state", name, Ui.label("reads", "soft"), reads), told, prose);
        workbench.tablePromisesProperty().addListener(_ -> page.get().ifPresent(this::showKept));
    }

    /// What it is called and what it is for.
    Region head() {
        return head;
    }

    Region parameters() {
        return parameters.view();
    }

    Region promises() {
        return new VBox(6, promises, kept);
    }

    /// Sets a field of the page to what stands in a text field, unless it says that already.
    /// The pages that name the fix follow it.
    private void rename() {
        String now = name.getText().strip();
        Optional<TableFixPage> page = this.page.get().filter(p -> !p.name().equals(now));
        if (page.isEmpty()) {
            return;
        }
        workbench.rename(page.get().file(), now, renamed -> {
            if (!renamed.isPresent()) {
                name.setText(page.get().name());
            }
            Ui.mark(told, "problem", !renamed.isPresent());
            told.setText(
                    !renamed.isPresent()
                            ? renamed.problems().getFirst().sentence()
                            : renamed.get().isEmpty()
                                    ? ""
                                    : "Kept together with it, as they name it: " + String.join(", ", renamed.get())
                                            + ".");
        });
    }

    private void field(Function<TableFixPage, String> now, String field, TextField typed) {
        String text = typed.getText().strip();
        with(p -> now.apply(p).equals(text)
                ? p.source().text()
                : TableFixEdits.setField(p, field, YamlText.scalar(text)));
    }

    private void with(Function<TableFixPage, String> change) {
        page.get().ifPresent(p -> {
            String text = change.apply(p);
            if (!text.equals(p.source().text())) {
                edit.accept(text);
            }
        });
    }

    void fill(TableFixPage now) {
        filling = true;
        set(title, now.title());
        set(name, now.name());
        set(reads, now.reads());
        if (!prose.isFocused() && !prose.getText().equals(now.prose())) {
            prose.setText(now.prose());
        }
        parameters.show(TableFixEdits.parameters(now));
        fillPromises(now);
        filling = false;
    }

    private static void set(TextField field, String text) {
        if (!field.isFocused() && !field.getText().equals(text)) {
            field.setText(text);
        }
    }

    private void fillPromises(TableFixPage now) {
        boolean typing = more.isFocused();
        promises.getChildren().clear();
        for (TablePromise.Kind kind : TablePromise.Kind.values()) {
            if (!kind.takesColumns()) {
                promises.getChildren().add(box(now, TablePromise.of(kind)));
            }
        }
        now.promises().stream().filter(p -> p.kind().takesColumns()).forEach(p -> promises.getChildren()
                .add(box(now, p)));
        promises.getChildren().add(more);
        if (typing) {
            more.requestFocus();
        } else {
            more.clear();
        }
        showKept(now);
    }

    private CheckBox box(TableFixPage now, TablePromise promise) {
        CheckBox box = new CheckBox(promise.sentence());
        box.setSelected(now.promises().contains(promise));
        box.setOnAction(_ -> turn(promise.written()));
        return box;
    }

    /// Adds a promise, or takes it back where it is there.
    private void turn(String written) {
        if (!written.isEmpty()) {
            more.clear();
            with(p -> {
                List<String> all = new ArrayList<>(
                        p.promises().stream().map(TablePromise::written).toList());
                if (!all.remove(written)) {
                    all.add(written);
                }
                return TableFixEdits.setField(p, "promises", YamlText.list(all));
            });
        }
    }

    private void showKept(TableFixPage now) {
        kept.getChildren().setAll(TablePromiseLines.of(workbench, now));
        Command keep = TablePromiseLines.keepBroken(workbench, page, edit);
        if (keep.enabled().getAsBoolean()) {
            kept.getChildren().add(Ui.button(keep, "usual", "small"));
        }
    }
}
