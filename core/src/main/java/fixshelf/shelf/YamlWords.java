package fixshelf.shelf;

import java.util.List;
import org.jspecify.annotations.Nullable;

/// What is wrong with a text that is no YAML, in words of ours: those of its reader are for people who write readers.
///
/// @param atStart whether it is told where what was being read begins, and not where the reader gave up
record YamlWords(String what, String todo, boolean atStart) {
    private YamlWords(String what, String todo) {
        this(what, todo, false);
    }

    private record Said(String part, YamlWords words) {}

    private static final YamlWords UNKNOWN =
            new YamlWords("this is not expected here.", "Look at indents, colons and quotes.");

    private static final List<Said> ALL = List.of(
            new Said("TAB", new YamlWords("a line is indented with a tab.", "Indent lines with spaces.")),
            new Said(
                    "mapping values are not allowed",
                    new YamlWords("a value holds a colon.", "Write the value in quotes, or as a block behind |-.")),
            new Said(
                    "expected <block end>",
                    new YamlWords(
                            "this line is indented otherwise than those that it belongs to.",
                            "Indent it as they are.")),
            new Said(
                    "could not find expected ':'",
                    new YamlWords("a name stands here without a colon behind it.", "Write `name: value`.")),
            new Said(
                    "unknown escape",
                    new YamlWords(
                            "a \\ in double quotes begins no sign that is known.",
                            "Write the value in single quotes.")),
            new Said(
                    "quoted scalar",
                    new YamlWords(
                            "quotes are opened here and not closed.", "Close them, or write one quote as two.", true)),
            new Said(
                    "unexpected end of stream",
                    new YamlWords(
                            "quotes are opened here and not closed.", "Close them, or write one quote as two.", true)),
            new Said(
                    "flow sequence",
                    new YamlWords("a list is opened with [ and not closed as it should be.", "Close it with ].")),
            new Said(
                    "flow mapping",
                    new YamlWords("fields are opened with { and not closed as they should be.", "Close them with }.")),
            new Said(
                    "alias",
                    new YamlWords(
                            "a value begins with *, or names what is defined nowhere.", "Write the value in quotes.")),
            new Said(
                    "cannot start any token",
                    new YamlWords("a value cannot begin with this sign.", "Write the value in quotes.")),
            new Said(
                    "special characters are not allowed",
                    new YamlWords(
                            "there is a sign that no page may hold.",
                            "Take it out; a sign by its number is U&'\\0007'.")));

    /// @param problem what its reader says
    /// @param context what it was reading
    static YamlWords of(@Nullable String problem, @Nullable String context) {
        String all = (problem == null ? "" : problem) + " " + (context == null ? "" : context);
        return ALL.stream()
                .filter(s -> all.contains(s.part()))
                .findFirst()
                .map(Said::words)
                .orElse(UNKNOWN);
    }
}
