package fixshelf.desktop.workbench;

import java.io.IOException;

/// Leave to use a place, which its user gives by what is done, and which is remembered.
public interface Leave {
    void remember() throws IOException;

    /// What cannot be remembered is asked for where it is needed.
    static void give(Leave leave) {
        try {
            leave.remember();
        } catch (IOException e) {
            System.getLogger(Leave.class.getName()).log(System.Logger.Level.WARNING, "not remembered", e);
        }
    }
}
