package fixshelf.language.catalogue;

/// What stands between the parts of a text.
public final class Separators {
    private Separators() {}

    /// Whether a separator can begin again before it has ended, as `aa` does in `aaa`: then it matters from where it is
    /// looked for.
    public static boolean overlapItself(String separator) {
        for (int i = 1; i < separator.length(); i++) {
            if (separator.startsWith(separator.substring(i))) {
                return true;
            }
        }
        return false;
    }
}
