package fixshelf.plan;

import fixshelf.problem.Outcome;
import fixshelf.table.Field;
import java.util.List;
import java.util.Optional;

/// What happens where a column that a line names is not there: a file of another month has one less. It is said by an
/// operation that has the blank, of the columns in its blank `columns`.
public final class Absent {
    /// The blank of which it is said.
    private static final String OF = "columns";

    private static final String PASS_OVER = "pass_over";

    public static final Blank<String> BLANK = Blank.usually(
            "if_absent",
            ValueKinds.choice("problem", PASS_OVER),
            "problem",
            "What happens where a column that is named is not there.");

    private Absent() {}

    /// What stands in a blank of columns, without those that are not there; rules stay as they are. None may be left,
    /// which is no problem.
    static Outcome<?> read(Kind<?> kind, Written written, Context context) {
        if (ColumnKinds.isRule(written) || written.texts().isEmpty()) {
            return kind.read(written, context);
        }
        List<String> there = written.texts().get().stream()
                .filter(n -> context.fields().stream().map(Field::name).anyMatch(n::equalsIgnoreCase))
                .toList();
        return there.isEmpty() ? Outcome.of(List.of()) : kind.read(Written.words(there), context);
    }

    /// Whether a line does so in a blank. Keys, as the columns within which a value is carried, are never passed over.
    static boolean isPassedOver(Operation operation, Blank<?> blank, Line line) {
        return blank.name().equals(OF)
                && operation.blank(BLANK.name()).isPresent()
                && line.written(BLANK.name()).equals(Optional.of(Written.word(PASS_OVER)));
    }
}
