package fixshelf.language.pattern;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;

/// The pattern of LIKE, read: any text, any one character, and characters that stand for themselves.
public record LikePattern(List<Part> parts) {
    public LikePattern {
        parts = List.copyOf(parts);
    }

    /// A part of the pattern.
    public sealed interface Part {
        /// `%`: any text, also none.
        record Any() implements Part {}

        /// `_`: any one character.
        record One() implements Part {}

        /// A character that stands for itself.
        record Plain(int codePoint) implements Part {}
    }

    /// The pattern of a call of LIKE; empty when it is not known yet.
    public static Optional<LikePattern> of(List<Expr> arguments) {
        if (!(arguments.get(1) instanceof Expr.Literal(String pattern, Type _))) {
            return Optional.empty();
        }
        int escape = arguments.size() > 2 && arguments.get(2) instanceof Expr.Literal(String sign, Type _)
                ? sign.codePointAt(0)
                : -1;
        return Optional.of(parse(pattern, escape));
    }

    private static LikePattern parse(String pattern, int escape) {
        List<Part> parts = new ArrayList<>();
        int[] points = pattern.codePoints().toArray();
        for (int i = 0; i < points.length; i++) {
            if (points[i] == escape && i + 1 < points.length) {
                parts.add(new Part.Plain(points[++i]));
            } else {
                parts.add(
                        switch (points[i]) {
                            case '%' -> new Part.Any();
                            case '_' -> new Part.One();
                            default -> new Part.Plain(points[i]);
                        });
            }
        }
        return new LikePattern(parts);
    }

    /// The pattern with other signs.
    public String write(String any, String one, IntFunction<String> plain) {
        StringBuilder out = new StringBuilder();
        for (Part part : parts) {
            switch (part) {
                case Part.Any() -> out.append(any);
                case Part.One() -> out.append(one);
                case Part.Plain(int codePoint) -> out.append(plain.apply(codePoint));
            }
        }
        return out.toString();
    }
}
