package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Completion;
import fixshelf.plan.Kind;
import fixshelf.plan.Written;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.TextField;

/// Columns that are marked one after another in a blank that takes several: those whose names stand in the field.
final class ColumnMarks implements Completion.Marks {
    private final TextField field;
    private final Kind<?> kind;
    private boolean turning;

    ColumnMarks(TextField field, Kind<?> kind) {
        this.field = field;
        this.kind = kind;
    }

    /// Whether the text changes because a mark does.
    boolean isTurning() {
        return turning;
    }

    /// Only where the field was not typed into: a space is part of names there.
    @Override
    public boolean isMarking() {
        return field.getSelectedText().equals(field.getText());
    }

    @Override
    public boolean isMarked(String word) {
        return names().contains(word);
    }

    @Override
    public void turn(String word) {
        List<String> names = new ArrayList<>(names());
        if (!names.remove(word)) {
            names.add(word);
        }
        turning = true;
        field.setText(names.isEmpty() ? "" : kind.say(Written.words(names)));
        field.selectAll();
        turning = false;
    }

    /// The names in the field; none where it says something else, such as every column.
    private List<String> names() {
        if (field.getText().isBlank()) {
            return List.of();
        }
        Optional<Written> typed = kind.typed(field.getText()).value();
        return typed.filter(Written.Items.class::isInstance)
                .flatMap(Written::texts)
                .orElse(List.of());
    }
}
