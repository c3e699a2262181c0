package fixshelf.shelf;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The texts that a page has had, kept on disk with every change, so that undo survives an end of the program.
///
/// The journal is only appended to: each entry is a move in the list of texts. A journal whose last entry was cut off
/// is read up to that entry.
public final class History {
    private static final int MOST = 200;
    private static final byte EDIT = 1;
    private static final byte MOVE = 2;

    private final Path journal;
    private final List<String> texts = new ArrayList<>();
    private int at;

    private History(Path journal) {
        this.journal = journal;
    }

    /// The history of a page, which now has this text. A draft that was never kept is the current text again.
    public static History open(Path shelf, Path page, String kept) {
        String name = shelf.relativize(page).toString().replaceAll("[^A-Za-z0-9._-]", "_");
        History history = new History(shelf.resolve(".fixshelf/history").resolve(name + ".journal"));
        history.replay();
        if (history.texts.isEmpty()) {
            history.record(kept);
        } else if (!history.texts.contains(kept)) {
            history.record(kept);
        }
        return history;
    }

    private void replay() {
        if (!Files.exists(journal)) {
            return;
        }
        long whole = 0;
        try (DataInputStream in = new DataInputStream(new java.io.BufferedInputStream(Files.newInputStream(journal)))) {
            while (true) {
                whole += entry(in);
            }
        } catch (IOException e) {
            cutAt(whole);
        }
        at = Math.clamp(at, 0, Math.max(0, texts.size() - 1));
    }

    /// Reads one entry, and tells how long it is; an entry that is not whole changes nothing.
    private long entry(DataInputStream in) throws IOException {
        byte kind = in.readByte();
        int number = in.readInt();
        if (kind != EDIT) {
            at = Math.clamp(number, 0, Math.max(0, texts.size() - 1));
            return 1 + Integer.BYTES;
        }
        byte[] bytes = in.readNBytes(number);
        if (bytes.length < number) {
            throw new java.io.EOFException();
        }
        apply(new String(bytes, StandardCharsets.UTF_8));
        return 1L + Integer.BYTES + number;
    }

    /// What comes after the last whole entry would spoil those that are written after it.
    private void cutAt(long whole) {
        try (FileChannel channel = FileChannel.open(journal, StandardOpenOption.WRITE)) {
            channel.truncate(whole);
        } catch (IOException e) {
            System.getLogger(History.class.getName())
                    .log(System.Logger.Level.WARNING, "undo will not survive a restart: " + e.getMessage());
        }
    }

    private void apply(String text) {
        while (texts.size() > at + 1) {
            texts.removeLast();
        }
        texts.add(text);
        at = texts.size() - 1;
        if (texts.size() > MOST) {
            texts.removeFirst();
            at--;
        }
    }

    public String current() {
        return texts.get(at);
    }

    /// A new text; what could be redone is gone.
    public void record(String text) {
        if (!texts.isEmpty() && current().equals(text)) {
            return;
        }
        apply(text);
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        append(out -> {
            out.writeByte(EDIT);
            out.writeInt(bytes.length);
            out.write(bytes);
        });
    }

    public Optional<String> undo() {
        return move(at - 1);
    }

    public Optional<String> redo() {
        return move(at + 1);
    }

    public boolean canUndo() {
        return at > 0;
    }

    public boolean canRedo() {
        return at + 1 < texts.size();
    }

    private Optional<String> move(int to) {
        if (to < 0 || to >= texts.size()) {
            return Optional.empty();
        }
        at = to;
        append(out -> {
            out.writeByte(MOVE);
            out.writeInt(to);
        });
        return Optional.of(current());
    }

    private interface Entry {
        void writeTo(DataOutputStream out) throws IOException;
    }

    private void append(Entry entry) {
        try {
            Path shelf = journal.getParent().getParent().getParent();
            Path own = OwnFolder.file(shelf, "history", journal.getFileName().toString());
            try (OutputStream file = Files.newOutputStream(own, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
                    DataOutputStream out = new DataOutputStream(new java.io.BufferedOutputStream(file))) {
                entry.writeTo(out);
            }
        } catch (IOException e) {
            System.getLogger(History.class.getName())
                    .log(System.Logger.Level.WARNING, "undo will not survive a restart: " + e.getMessage());
        }
    }
}
