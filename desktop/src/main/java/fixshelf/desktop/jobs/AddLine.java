package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Completion;
import fixshelf.desktop.parts.Ui;
import fixshelf.plan.Line;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// Where a line is added, by words for what it does.
public final class AddLine {
    private final TextField field = new TextField();
    private final Label nothing = Ui.wrapped("", "soft");
    private final HBox saying = Ui.row("job-line", Ui.label("", "line-number"), nothing);
    private final VBox view = new VBox(Ui.row("job-line", Ui.label("+", "line-number"), field), saying);
    private final Supplier<List<NewLines.Offered>> offered;
    private final Consumer<Line> taken;

    /// @param offered what can be added where the line would stand
    public AddLine(Supplier<List<NewLines.Offered>> offered, Consumer<Line> taken) {
        this.offered = offered;
        this.taken = taken;
        field.setPromptText("+ add a line: a fix or an operation …");
        field.setAccessibleText("Add a line");
        HBox.setHgrow(field, Priority.ALWAYS);
        saying.managedProperty().bind(saying.visibleProperty());
        saying.setVisible(false);
        Completion completion = new Completion(field, this::take);
        field.textProperty().addListener(_ -> offer(completion));
        field.setOnAction(_ -> {
            if (!field.getText().isBlank()) {
                matching().stream().findFirst().ifPresent(this::take);
            }
        });
    }

    public VBox view() {
        return view;
    }

    private void offer(Completion completion) {
        List<String> matching = field.getText().isBlank() ? List.of() : matching();
        saying.setVisible(!field.getText().isBlank() && matching.isEmpty());
        nothing.setText("No fix and no operation has “" + field.getText().strip()
                + "” in its name or its words. Type what it is for: remove empty, look up, one row for each.");
        if (matching.isEmpty()) {
            completion.hide();
        } else if (field.isFocused()) {
            completion.offer(matching, field.localToScreen(field.getBoundsInLocal()));
        }
    }

    private List<String> matching() {
        return Completion.matching(offered.get(), field.getText().strip(), NewLines.Offered::searched).stream()
                .map(NewLines.Offered::words)
                .toList();
    }

    private void take(String words) {
        offered.get().stream().filter(o -> o.words().equals(words)).findFirst().ifPresent(o -> {
            field.clear();
            taken.accept(o.line());
        });
    }
}
