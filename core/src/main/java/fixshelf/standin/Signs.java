package fixshelf.standin;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.InvalidKeyException;
import java.security.NoSuchAlgorithmException;
import java.util.Random;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/// Letters and digits that a secret chooses for those of a text: always the same ones, and no others can be told from
/// them without the secret.
final class Signs {
    private static final String VOWELS = "aeiou";
    private static final String OTHERS = "bcdfghjklmnprstvwz";
    private static final String LETTERS = "abcdefghijklmnopqrstuvwxyz";
    /// Letters of another script are taken from as many code points around.
    private static final int BLOCK = 64;

    private static final int MOST_TRIES = 20;

    private final Mac mac;
    private final IntPredicate writable;

    /// @param writable whether a letter can be written in the encoding of the file
    Signs(byte[] secret, IntPredicate writable) {
        this.writable = writable;
        try {
            mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(secret, "HmacSHA256"));
        } catch (NoSuchAlgorithmException | InvalidKeyException e) {
            throw new IllegalStateException("every Java has HmacSHA256", e);
        }
    }

    private Random random(String what) {
        return new Random(ByteBuffer.wrap(mac.doFinal(what.getBytes(StandardCharsets.UTF_8)))
                .getLong());
    }

    /// An order that only the secret knows.
    Random order() {
        return random("\u0003order");
    }

    /// Other letters: vowels for vowels, so that words can be spoken.
    ///
    /// @param whole what the word stands in, where the word alone is not to say it
    /// @param alike whether vowels stand for vowels
    String letters(String word, String whole, boolean alike) {
        Random random = random(whole + '\u0004' + word);
        for (int attempt = 0; ; attempt++) {
            StringBuilder out = new StringBuilder();
            word.codePoints().forEach(c -> out.appendCodePoint(letter(c, random, alike)));
            if (attempt == MOST_TRIES || !out.toString().equals(word)) {
                return out.toString();
            }
        }
    }

    private int letter(int c, Random random, boolean alike) {
        if (c >= 'a' && c <= 'z') {
            String from = !alike ? LETTERS : VOWELS.indexOf(c) >= 0 ? VOWELS : OTHERS;
            return from.charAt(random.nextInt(from.length()));
        }
        int[] around = IntStream.range(c / BLOCK * BLOCK, c / BLOCK * BLOCK + BLOCK)
                .filter(o -> Character.getType(o) == Character.getType(c)
                        && Runs.base(o) == o
                        && writable.test(o)
                        && writable.test(Character.toUpperCase(o)))
                .toArray();
        return around.length == 0 ? c : around[random.nextInt(around.length)];
    }

    /// Other digits, the first of them not zero.
    ///
    /// @param sameFirst whether the first one stays, where there are others
    /// @param lastNotZero whether the last one is not zero either
    String digits(String digits, String whole, boolean sameFirst, boolean lastNotZero) {
        Random random = random(whole + '\u0005' + digits);
        for (int attempt = 0; ; attempt++) {
            String made = digits(digits, random, sameFirst && digits.length() > 1, lastNotZero);
            if (attempt == MOST_TRIES || !made.equals(digits)) {
                return made;
            }
        }
    }

    private static String digits(String digits, Random random, boolean sameFirst, boolean lastNotZero) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < digits.length(); i++) {
            boolean notZero = i == 0 || lastNotZero && i == digits.length() - 1;
            char other = (char) (notZero ? '1' + random.nextInt(9) : '0' + random.nextInt(10));
            out.append(i == 0 && sameFirst ? digits.charAt(0) : other);
        }
        return out.toString();
    }

    /// A time of the same hour.
    String clock(String time) {
        Random random = random("\u0006" + time);
        String[] parts = time.split(":");
        StringBuilder out = new StringBuilder(parts[0]);
        for (int i = 1; i < parts.length; i++) {
            out.append(String.format(":%02d", random.nextInt(60)));
        }
        return out.toString();
    }
}
