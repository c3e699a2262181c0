package fixshelf.language.tree;

import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// A checked value fix: its signature and its typed body. Definitions hold the definitions they call, without
/// cycles.
///
/// @param makesMissing for which arguments it makes a value missing on purpose; what else becomes missing is lost
public record Definition(
        String name, List<Parameter> parameters, Type returns, Body body, Optional<Expr> makesMissing) {
    public Definition(String name, List<Parameter> parameters, Type returns, Body body) {
        this(name, parameters, returns, body, Optional.empty());
    }

    public Definition {
        parameters = List.copyOf(parameters);
    }

    /// A definition is the same as itself only: it holds all that it calls, and looking into them would go the same
    /// ways again and again.
    @Override
    public boolean equals(@Nullable Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return name.hashCode();
    }

    /// `squeeze_spaces(text, keep_ends = FALSE) → text`
    public String signature() {
        String inside = parameters.stream()
                .map(p -> p.name()
                        + p.fallback().map(f -> " = " + Printer.print(f)).orElse(""))
                .collect(Collectors.joining(", "));
        return name + "(" + inside + ") → " + returns.label();
    }
}
