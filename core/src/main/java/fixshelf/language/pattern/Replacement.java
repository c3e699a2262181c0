package fixshelf.language.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The replacement of `regexp_replace`: plain text with `\0` to `\9` for groups and `\\` for a backslash.
public sealed interface Replacement {
    /// Text that is meant as it stands.
    record Plain(String text) implements Replacement {}

    /// A group, or the whole match for 0.
    record GroupOf(int number) implements Replacement {}

    /// Why a replacement is not right for a pattern with so many groups; empty when it is.
    static Optional<String> problemWith(String text, int groups) {
        for (int i = text.indexOf('\\'); i >= 0; i = text.indexOf('\\', i + 2)) {
            char next = i + 1 < text.length() ? text.charAt(i + 1) : ' ';
            if (next != '\\' && (next < '0' || next > '9')) {
                return Optional.of("A backslash in the replacement stands before a group number or a backslash.");
            }
            if (next != '\\' && next - '0' > groups) {
                return Optional.of(
                        "The pattern has " + groups + " groups, the replacement asks for number " + next + ".");
            }
        }
        return Optional.empty();
    }

    /// The parts of a replacement that has no problem.
    static List<Replacement> parse(String text) {
        List<Replacement> parts = new ArrayList<>();
        StringBuilder plain = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) != '\\') {
                plain.append(text.charAt(i));
                continue;
            }
            i++;
            if (text.charAt(i) == '\\') {
                plain.append('\\');
            } else {
                flush(plain, parts);
                parts.add(new GroupOf(text.charAt(i) - '0'));
            }
        }
        flush(plain, parts);
        return parts;
    }

    private static void flush(StringBuilder plain, List<Replacement> parts) {
        if (!plain.isEmpty()) {
            parts.add(new Plain(plain.toString()));
            plain.setLength(0);
        }
    }
}
