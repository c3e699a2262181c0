package fixshelf.desktop.parts;

import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCombination;
import org.jspecify.annotations.Nullable;

/// Something the user can ask for: a button, a shortcut and an entry of the jump field are all made from it.
public record Command(String text, @Nullable KeyCombination keys, BooleanSupplier enabled, Runnable run) {
    public static Command of(String text, String keys, Runnable run) {
        return new Command(text, keys.isEmpty() ? null : KeyCombination.valueOf(keys), () -> true, run);
    }

    public Command when(BooleanSupplier condition) {
        return new Command(text, keys, condition, run);
    }

    /// Runs it if it can be run now.
    public void tryRun() {
        if (enabled.getAsBoolean()) {
            run.run();
        }
    }
}
