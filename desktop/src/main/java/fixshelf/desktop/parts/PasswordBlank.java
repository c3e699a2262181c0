package fixshelf.desktop.parts;

import fixshelf.fetch.Secrets;
import fixshelf.problem.Problem;
import java.util.Optional;
import javafx.scene.control.PasswordField;
import javafx.scene.layout.VBox;

/// Where a password is typed that no variable of the system holds: it is kept until Fix Shelf is
/// closed, and stands in no page.
public final class PasswordBlank {
    private static final double WIDTH = 260;

    private PasswordBlank() {}

    /// The blank for the password that a problem is about; nothing where it is about something else.
    ///
    /// @param goOn tries again
    public static Optional<VBox> of(Optional<Problem> problem, Runnable goOn) {
        return problem.flatMap(Secrets::askedBy).map(variable -> {
            PasswordField field = new PasswordField();
            field.setId("password");
            field.setAccessibleText("Password, for " + variable);
            field.setPrefColumnCount(20);
            field.setOnAction(_ -> {
                String typed = field.getText();
                field.clear();
                if (!typed.isEmpty()) {
                    Secrets.answer(variable, typed);
                    goOn.run();
                }
            });
            VBox box = new VBox(
                    4, Ui.wrapped("Password for " + variable + ", kept until Fix Shelf is closed", "soft"), field);
            box.setPrefWidth(WIDTH);
            box.setMaxWidth(WIDTH);
            return box;
        });
    }
}
