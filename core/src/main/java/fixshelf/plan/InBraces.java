package fixshelf.plan;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Names of values in braces, as `{day}`.
public final class InBraces {
    /// What a name is made of; it stands in a group.
    public static final Pattern NAME = Pattern.compile("\\{([\\p{L}_][\\p{L}\\p{M}\\p{Nd}_]*)}");

    private InBraces() {}

    /// The names that a text asks for.
    public static List<String> names(String text) {
        return NAME.matcher(text).results().map(m -> m.group(1)).toList();
    }

    /// What is written, with values in the place of `{name}` where that is the whole of a word; names that have none
    /// stay as they are.
    public static Written filled(Written written, Map<String, String> values) {
        return switch (written) {
            case Written.Word(String text) -> {
                Matcher whole = NAME.matcher(text);
                String value = whole.matches() ? values.get(whole.group(1)) : null;
                yield value == null ? written : Written.word(value);
            }
            case Written.Items(List<Written> items) ->
                new Written.Items(items.stream().map(i -> filled(i, values)).toList());
            case Written.Fields(Map<String, Written> fields) -> new Written.Fields(filled(fields, values));
        };
    }

    /// Blanks with values in the place of `{name}`.
    public static Map<String, Written> filled(Map<String, Written> blanks, Map<String, String> values) {
        Map<String, Written> filled = new LinkedHashMap<>();
        blanks.forEach((name, written) -> filled.put(name, filled(written, values)));
        return filled;
    }
}
