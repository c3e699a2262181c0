package fixshelf.language.tree;

import fixshelf.type.Type;
import java.util.Optional;

/// A parameter of a fix.
///
/// @param fallback the value when the argument is left out; empty means that it must be given
/// @param about one sentence for its reader
/// @param fixed whether its value must be known when code is written, as that of a pattern
public record Parameter(String name, Type type, Optional<Expr.Literal> fallback, String about, boolean fixed) {
    public boolean isOptional() {
        return fallback.isPresent();
    }
}
