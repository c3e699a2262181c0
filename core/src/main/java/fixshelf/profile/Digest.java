package fixshelf.profile;

/// A number made of a text, so that equal texts can be told without keeping them.
final class Digest {
    private static final long BASIS = 0xcbf29ce484222325L;
    private static final long PRIME = 0x100000001b3L;

    private Digest() {}

    /// The 64 bits of FNV-1a over the text's UTF-16, mixed once more, so that sums of them differ.
    ///
    /// Source: Fowler, Noll and Vo, The FNV Non-Cryptographic Hash Algorithm.
    static long of(String text) {
        long hash = BASIS;
        for (int i = 0; i < text.length(); i++) {
            hash = (hash ^ text.charAt(i)) * PRIME;
        }
        hash ^= hash >>> 32;
        hash *= 0xd6e8feb86659fd93L;
        return hash ^ hash >>> 32;
    }
}
