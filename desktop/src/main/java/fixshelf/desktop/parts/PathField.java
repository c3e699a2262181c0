package fixshelf.desktop.parts;

import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/// A field for the path of a file or a folder. Tab writes it on as far as only one way leads; where none does, it goes
/// to the next control, as everywhere.
public final class PathField extends TextField {
    private final Background background;
    private String completed = "";

    /// @param id by which it is found, and which names its work
    /// @param prompt what stands in it while it is empty
    /// @param taken gets the path, when Enter is pressed
    public PathField(Background background, String id, String prompt, Consumer<Path> taken) {
        this.background = background;
        setId(id);
        setPromptText(prompt);
        setPrefColumnCount(26);
        setOnAction(_ -> {
            if (!isBlank()) {
                taken.accept(path());
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            boolean more = TypedPath.is(getText()) && !getText().equals(completed);
            if (e.getCode() == KeyCode.TAB && !e.isShiftDown() && more) {
                complete();
                e.consume();
            }
        });
    }

    public boolean isBlank() {
        return getText().isBlank();
    }

    /// What is typed, from the user's home where it begins at no root.
    public Path path() {
        String text = getText().strip();
        Path home = Path.of(System.getProperty("user.home"));
        return (text.startsWith("~")
                        ? home.resolve(text.substring(1).replaceFirst("^[/\\\\]+", ""))
                        : home.resolve(text))
                .normalize();
    }

    /// A folder can be far away, so that it is looked at elsewhere.
    private void complete() {
        String typed = getText();
        background.ask(
                Request.now("paths", "looking for files of " + getId()),
                () -> TypedPath.found(typed, Path.of(System.getProperty("user.home"))),
                found -> {
                    if (typed.equals(getText())) {
                        String longer = common(found, typed);
                        completed = longer;
                        setText(longer);
                        positionCaret(longer.length());
                    }
                });
    }

    private static String common(List<TypedPath.Found> found, String typed) {
        return found.stream()
                .map(TypedPath.Found::text)
                .reduce(PathField::common)
                .filter(t -> t.length() >= typed.strip().length())
                .orElse(typed);
    }

    private static String common(String a, String b) {
        int end = 0;
        while (end < Math.min(a.length(), b.length()) && a.charAt(end) == b.charAt(end)) {
            end++;
        }
        return a.substring(0, end);
    }
}
