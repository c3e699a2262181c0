package fixshelf.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/// Names and values in a row, as they are said in a sentence and typed into a blank: with commas between, and in
/// double quotes where a name would be read as something else.
final class Words {
    private static final List<String> TAKEN = List.of("every ", "columns like ", "from ", "the usual ");

    private Words() {}

    /// The name, in double quotes where it needs them; a quote inside is written twice.
    static String quoted(String name) {
        String lower = name.toLowerCase(Locale.ROOT);
        boolean plain = !name.isBlank()
                && name.equals(name.strip())
                && name.chars().noneMatch(c -> ",\";=:'→".indexOf(c) >= 0 || Character.isISOControl(c))
                && TAKEN.stream().noneMatch(lower::startsWith)
                && !lower.contains(" to ")
                && !lower.contains(" as ")
                && !lower.contains(" but ")
                && !lower.startsWith("to ")
                && !lower.endsWith(" to")
                && !lower.endsWith(" descending")
                && !List.of(
                                "empty",
                                "nothing",
                                "none",
                                "all columns",
                                "place in the file",
                                "the values",
                                "descending",
                                "to")
                        .contains(lower);
        return plain ? name : '"' + name.replace("\"", "\"\"") + '"';
    }

    static String joined(List<String> names) {
        return names.stream().map(Words::quoted).collect(Collectors.joining(", "));
    }

    /// The pieces between the separators that stand outside of quotes, stripped, quotes kept; empty ones are left out.
    static List<String> pieces(String text, String separator, String quotes) {
        List<String> pieces = new ArrayList<>();
        StringBuilder piece = new StringBuilder();
        char inside = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (inside != 0) {
                inside = c == inside ? 0 : inside;
            } else if (quotes.indexOf(c) >= 0) {
                inside = c;
            } else if (text.regionMatches(true, i, separator, 0, separator.length())) {
                pieces.add(piece.toString().strip());
                piece.setLength(0);
                i += separator.length() - 1;
                continue;
            }
            piece.append(c);
        }
        pieces.add(piece.toString().strip());
        return pieces.stream().filter(p -> !p.isEmpty()).toList();
    }

    /// The name that a piece means.
    static String unquoted(String piece) {
        String text = piece.strip();
        boolean quoted = text.length() >= 2 && text.startsWith("\"") && text.endsWith("\"");
        return quoted ? text.substring(1, text.length() - 1).replace("\"\"", "\"") : text;
    }

    static List<String> split(String text) {
        return pieces(text, ",", "\"").stream().map(Words::unquoted).toList();
    }
}
