package fixshelf.desktop;

import fixshelf.shelf.PageFiles;
import fixshelf.shelf.UserFolder;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;

/// What the window remembers for this user: the last shelf, the sheet, the size of text.
final class UserSettings {
    private final Path file;
    private final Properties values = new Properties();

    UserSettings(Path file) {
        this.file = file;
        try {
            values.load(new StringReader(Files.exists(file) ? Files.readString(file) : ""));
        } catch (IOException e) {
            System.getLogger(UserSettings.class.getName()).log(System.Logger.Level.DEBUG, "settings", e);
        }
    }

    /// The settings in the user's own folder, or in the one that `FIXSHELF_SETTINGS` names.
    static UserSettings ofUser() {
        return new UserSettings(UserFolder.path().resolve("window.properties"));
    }

    Optional<Path> lastShelf() {
        return Optional.ofNullable(values.getProperty("shelf")).map(Path::of);
    }

    boolean isDark() {
        return "dark".equals(values.getProperty("sheet"));
    }

    int textSize() {
        String size = values.getProperty("text", "14");
        return size.matches("1[2-9]|20") ? Integer.parseInt(size) : 14;
    }

    void put(String name, String value) {
        values.setProperty(name, value);
        String text = values.stringPropertyNames().stream()
                .sorted()
                .map(n -> n + "=" + values.getProperty(n).replace("\\", "\\\\") + "\n")
                .collect(Collectors.joining());
        PageFiles.write(file, text);
    }
}
