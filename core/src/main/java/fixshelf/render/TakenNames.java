package fixshelf.render;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;

/// Names that a language uses itself. A function of such a name would be ignored there, refused, or found in place of
/// the language's own by code that means the other one.
///
/// @param names the names; in small letters where `anyCase`
/// @param anyCase whether names go without regard to case
public record TakenNames(Set<String> names, boolean anyCase) {
    private static final Map<String, TakenNames> READ = new ConcurrentHashMap<>();

    public TakenNames {
        names = Set.copyOf(names);
    }

    /// The names that stand in `taken-names/ID.txt` beside the class of a language; none where there is no such file.
    public static TakenNames of(Class<?> language, String id, boolean anyCase) {
        return READ.computeIfAbsent(
                language.getName() + " " + id,
                _ -> new TakenNames(read(language, "taken-names/" + id + ".txt"), anyCase));
    }

    private static Set<String> read(Class<?> language, String file) {
        try (InputStream stream = language.getResourceAsStream(file)) {
            String text = stream == null ? "" : new String(stream.readAllBytes(), StandardCharsets.UTF_8);
            return text.lines()
                    .filter(l -> !l.startsWith("#"))
                    .flatMap(l -> List.of(l.split(" ")).stream())
                    .collect(Collectors.toSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /// The name, with `_` behind it where it is taken. Two names never become one: `date` is `date_`, and `date_` is
    /// `date__`.
    public String free(String name) {
        String bare = name.replaceFirst("_+$", "");
        return names.contains(anyCase ? bare.toLowerCase(Locale.ROOT) : bare) ? name + "_" : name;
    }

    /// What a reader has to know of a function that has another name than its fix; empty for others.
    public String remark(String language, String name) {
        String free = free(name);
        return free.equals(name) ? "" : "Called " + free + ", as " + language + " uses " + name + " itself.";
    }
}
