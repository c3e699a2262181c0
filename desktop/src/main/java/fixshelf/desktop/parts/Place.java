package fixshelf.desktop.parts;

import java.util.List;
import javafx.scene.layout.Region;

/// A place of the window.
public interface Place {
    String title();

    Region view();

    /// The commands that make sense here.
    List<Command> commands();

    /// What the status line says on its left, and which keys it names on its right.
    String status();

    String keys();

    /// The place comes into view.
    void enter();

    /// Puts the keyboard where work begins.
    void focus();
}
