package fixshelf.shelf;

import java.nio.file.Path;

/// Where the program keeps what belongs to its user and to no shelf.
public final class UserFolder {
    private UserFolder() {}

    /// The folder that `FIXSHELF_SETTINGS` names, or the usual one for settings of this user.
    public static Path path() {
        String named = System.getenv("FIXSHELF_SETTINGS");
        String config = System.getenv("XDG_CONFIG_HOME");
        if (named != null) {
            return Path.of(named);
        }
        return config != null
                ? Path.of(config, "fixshelf")
                : Path.of(System.getProperty("user.home"), ".config", "fixshelf");
    }
}
