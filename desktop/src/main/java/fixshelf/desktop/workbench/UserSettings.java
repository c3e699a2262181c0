package fixshelf.desktop.workbench;

import fixshelf.shelf.PageFiles;
import fixshelf.shelf.UserFolder;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// What the window remembers for this user: the last shelf, the sheet, the size of text.
public final class UserSettings {
    private final Path file;
    private final Properties values = new Properties();

    public UserSettings(Path file) {
        this.file = file;
        try {
            values.load(new StringReader(Files.exists(file) ? Files.readString(file) : ""));
        } catch (IOException e) {
            System.getLogger(UserSettings.class.getName()).log(System.Logger.Level.DEBUG, "settings", e);
        }
    }

    /// The settings in the user's own folder, or in the one that `FIXSHELF_SETTINGS` names.
    public static UserSettings ofUser() {
        return new UserSettings(UserFolder.path().resolve("window.properties"));
    }

    public Optional<Path> lastShelf() {
        return Optional.ofNullable(values.getProperty("shelf")).map(Path::of);
    }

    private static final int MOST_SHELVES = 6;

    /// The shelves that were open, the last one first, as far as they are still there.
    public List<Path> lastShelves() {
        return Stream.of(values.getProperty("shelves", "").split("\t"))
                .filter(p -> !p.isBlank())
                .map(Path::of)
                .filter(Files::isDirectory)
                .toList();
    }

    /// What came of the cases of a shelf when it was open last; empty where nobody knows.
    public String casesOf(Path folder) {
        return cases().getOrDefault(folder.toString(), "");
    }

    /// Remembers what came of the cases of a shelf; of shelves that are not among the last ones it is forgotten.
    public void putCases(Path folder, String words) {
        Map<String, String> all = cases();
        if (words.equals(all.put(folder.toString(), words))) {
            return;
        }
        List<String> last = lastShelves().stream().map(Path::toString).toList();
        put(
                "cases",
                all.entrySet().stream()
                        .filter(e -> last.contains(e.getKey()))
                        .map(e -> e.getKey() + "\t" + e.getValue())
                        .collect(Collectors.joining("\t")));
    }

    private Map<String, String> cases() {
        Map<String, String> all = new LinkedHashMap<>();
        String[] words = values.getProperty("cases", "").split("\t");
        for (int i = 0; i + 1 < words.length; i += 2) {
            all.put(words[i], words[i + 1]);
        }
        return all;
    }

    /// Remembers that a shelf was opened.
    public void opened(Path folder) {
        String others = lastShelves().stream()
                .filter(p -> !p.equals(folder))
                .limit(MOST_SHELVES - 1)
                .map(p -> "\t" + p)
                .collect(Collectors.joining());
        values.setProperty("shelves", folder + others);
        put("shelf", folder.toString());
    }

    public boolean isDark() {
        return "dark".equals(values.getProperty("sheet"));
    }

    public int textSize() {
        String size = values.getProperty("text", "14");
        return size.matches("1[2-9]|20") ? Integer.parseInt(size) : 14;
    }

    public void put(String name, String value) {
        values.setProperty(name, value);
        String text = values.stringPropertyNames().stream()
                .sorted()
                .map(n -> n + "=" + values.getProperty(n).replace("\\", "\\\\").replace("\t", "\\t") + "\n")
                .collect(Collectors.joining());
        PageFiles.write(file, text);
    }
}
