package fixshelf.render;

import fixshelf.language.pattern.Regex;
import java.util.regex.Pattern;

/// Portable patterns for use inside the program, such as marking matches on the screen.
public final class JavaPatterns {
    private JavaPatterns() {}

    public static Pattern of(Regex regex) {
        return Pattern.compile(RegexWriter.java().write(regex));
    }
}
