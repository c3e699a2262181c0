package fixshelf.table;

import fixshelf.language.tree.Expr;
import java.util.Optional;

/// A cell that is worked out of its row, into a field of its own or in place of a field that is there.
///
/// @param made the field; with a number that is there already, its values are replaced
/// @param value over the fields before, all of which are still the old ones
/// @param onPurpose for which rows a value is made missing on purpose, over the fields before
public record Computed(Field made, Expr value, Optional<Expr> onPurpose) {
    public Computed(Field made, Expr value) {
        this(made, value, Optional.empty());
    }
}
