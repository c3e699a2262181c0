package fixshelf.render;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/// Names that a language uses itself. A function of such a name would be ignored there, refused, or found in place of
/// the language's own by code that means the other one.
final class TakenNames {
    private static final Map<String, Set<String>> BY_LANGUAGE = read();

    private TakenNames() {}

    /// The name, with `_` behind it where it is taken. Two names never become one: `date` is `date_`, and `date_` is
    /// `date__`.
    static String free(String language, String name) {
        Set<String> taken = BY_LANGUAGE.getOrDefault(language, Set.of());
        String bare = name.replaceFirst("_+$", "");
        return taken.contains(bare) || isSql(language) && taken.contains(bare.toLowerCase(Locale.ROOT))
                ? name + "_"
                : name;
    }

    /// What a reader has to know of a function that has another name than its fix; empty for others.
    static String remark(String language, String title, String name) {
        String free = free(language, name);
        return free.equals(name) ? "" : "Called " + free + ", as " + title + " uses " + name + " itself.";
    }

    /// Names go without regard to case there.
    private static boolean isSql(String language) {
        return !language.equals("pandas") && !language.equals("r");
    }

    private static Map<String, Set<String>> read() {
        Map<String, Set<String>> all = new HashMap<>();
        try (InputStream file = TakenNames.class.getResourceAsStream("taken-names.txt")) {
            String text = new String(Objects.requireNonNull(file).readAllBytes(), StandardCharsets.UTF_8);
            Set<String> names = new HashSet<>();
            for (String line : text.split("\n")) {
                if (line.startsWith("[")) {
                    names = new HashSet<>();
                    all.put(line.substring(1, line.length() - 1), names);
                } else if (!line.startsWith("#")) {
                    names.addAll(List.of(line.split(" ")));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        all.put("oracle", all.getOrDefault("mariadb", Set.of()));
        return all;
    }
}
