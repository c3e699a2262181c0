package fixshelf.shelf;

import fixshelf.plan.Written;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/// Writes YAML in the one way that this program writes it.
public final class YamlText {
    private static final Set<String> WORDS = Set.of("true", "false", "null", "yes", "no", "on", "off", "~");

    private YamlText() {}

    /// A word as it stands where YAML would read it as that very text, otherwise in double quotes.
    public static String scalar(String text) {
        boolean plain = text.matches("[A-Za-z_/][A-Za-z0-9_ ./()-]*")
                && !text.endsWith(" ")
                && !WORDS.contains(text.toLowerCase(java.util.Locale.ROOT));
        return plain ? text : quoted(text);
    }

    private static String quoted(String text) {
        StringBuilder out = new StringBuilder("\"");
        text.codePoints().forEach(c -> {
            switch (c) {
                case '"' -> out.append("\\\"");
                case '\\' -> out.append("\\\\");
                case '\n' -> out.append("\\n");
                case '\t' -> out.append("\\t");
                case '\r' -> out.append("\\r");
                default -> {
                    if (fixshelf.type.Visible.isInvisible(c) && c != ' ') {
                        out.append(c > 0xFFFF ? String.format("\\U%08X", c) : String.format("\\u%04X", c));
                    } else {
                        out.appendCodePoint(c);
                    }
                }
            }
        });
        return out.append('"').toString();
    }

    public static String list(List<String> texts) {
        return texts.stream().map(YamlText::scalar).collect(Collectors.joining(", ", "[", "]"));
    }

    public static String pairs(Map<String, String> pairs) {
        return pairs.entrySet().stream()
                .map(e -> scalar(e.getKey()) + ": " + scalar(e.getValue()))
                .collect(Collectors.joining(", ", "{", "}"));
    }

    /// What stands in a blank, on one line.
    static String written(Written written) {
        return switch (written) {
            case Written.Word(String text) -> scalar(text);
            case Written.Items(List<Written> items) ->
                items.stream().map(YamlText::written).collect(Collectors.joining(", ", "[", "]"));
            case Written.Fields(Map<String, Written> fields) ->
                fields.entrySet().stream()
                        .map(e -> scalar(e.getKey()) + ": " + written(e.getValue()))
                        .collect(Collectors.joining(", ", "{", "}"));
        };
    }

    /// A field on lines of its own: SQL with signs of YAML's stands as a block, as it was typed.
    static String field(String name, Written value, String indent) {
        boolean sql = value instanceof Written.Word(String text)
                && text.contains(" ")
                && text.matches("[\\x20-\\x7E\\u00A1-\\u024F\\n]*")
                && !text.startsWith(" ")
                && !text.endsWith(" ")
                && text.matches("(?s).*['\":#\\\\].*")
                && !text.contains("\n ")
                && !text.endsWith("\n");
        if (sql && value instanceof Written.Word(String text)) {
            String inner = "\n" + indent + "  ";
            return scalar(name) + ": |-" + inner + text.replace("\n", inner);
        }
        return scalar(name) + ": " + written(value);
    }
}
