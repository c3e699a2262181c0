package fixshelf.plan;

import fixshelf.plan.Written.Word;
import fixshelf.table.Field;
import fixshelf.type.Column;
import java.util.List;

/// What happens where a column that a line names is not there: a file of another month has one less. It is said by an
/// operation that has the blank, of the columns in its blank `columns`.
public final class Absent {
    private static final String PASS_OVER = "pass_over";

    public static final Blank<String> BLANK = Blank.usually(
            "if_absent",
            ValueKinds.choice("problem", PASS_OVER),
            "problem",
            "What happens where a column that is named is not there.");

    private Absent() {}

    /// What is left of names of columns where a line passes over those that are not there; empty where none is left.
    ///
    /// @param written what stands in the blank `columns`; rules stay as they are
    static Written present(Written written, List<Field> fields) {
        if (ColumnKinds.isRule(written)) {
            return written;
        }
        return written.texts()
                .map(names -> Written.words(names.stream()
                        .filter(n -> fields.stream()
                                .map(Field::column)
                                .map(Column::name)
                                .anyMatch(n::equalsIgnoreCase))
                        .toList()))
                .orElse(written);
    }

    /// Whether a line does so.
    static boolean isPassedOver(Operation operation, Line line) {
        return operation.blank(BLANK.name()).isPresent()
                && line.written(BLANK.name())
                        .filter(Word.class::isInstance)
                        .map(w -> ((Word) w).text().equals(PASS_OVER))
                        .orElse(false);
    }
}
