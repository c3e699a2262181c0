package fixshelf.work;

import fixshelf.plan.Step;
import fixshelf.table.Field;
import java.util.List;

/// What lines do with columns; known without any data.
final class StepColumns {
    private StepColumns() {}

    static LineEffect.Columns of(Step before, Step after) {
        List<String> added = after.fields().stream()
                .filter(f -> !before.after().shape().has(f))
                .map(Field::name)
                .toList();
        List<String> gone = before.fields().stream()
                .filter(f -> !after.after().shape().has(f))
                .map(Field::name)
                .toList();
        long renamed = after.fields().stream()
                .filter(f -> before.after()
                        .shape()
                        .find(f.id())
                        .filter(b -> !b.name().equals(f.name()))
                        .isPresent())
                .count();
        return new LineEffect.Columns(before.fields().size(), after.fields().size(), added, gone, (int) renamed);
    }
}
