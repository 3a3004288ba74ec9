package org.vastporch.core.text;

import java.text.Normalizer;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;

/** Words of any script in plain letters, for usernames and addresses. */
public final class Latin {

    private static final Map<Integer, String> LETTERS = letters();

    private Latin() {}

    /** A text in the letters a to z: accents off, other scripts written out letter by letter. */
    public static String of(String text) {
        StringBuilder out = new StringBuilder();
        for (int c : Normalizer.normalize(text, Normalizer.Form.NFC)
                .toLowerCase(Locale.ROOT)
                .codePoints()
                .toArray()) {
            String known = LETTERS.get(c);
            String plain = known != null ? known : Normalizer.normalize(Character.toString(c), Normalizer.Form.NFD);
            plain.chars()
                    .filter(x -> x >= 'a' && x <= 'z' || x >= '0' && x <= '9')
                    .forEach(x -> out.append((char) x));
        }
        return out.toString();
    }

    private static Map<Integer, String> letters() {
        String table = "ł l ø o đ d ð d þ th ß ss æ ae œ oe ı i "
                + "а a б b в v г g д d е e ё e ж zh з z и i й i к k л l м m н n о o п p р r с s т t у u"
                + " ф f х kh ц ts ч ch ш sh щ shch ы y э e ю yu я ya "
                + "є ie і i ї i ґ g ў u ј j љ lj њ nj ћ c ђ dj џ dz "
                + "α a β v γ g δ d ε e ζ z η i θ th ι i κ k λ l μ m ν n ξ x ο o π p ρ r σ s ς s τ t υ y"
                + " φ f χ ch ψ ps ω o "
                + "ا a ب b ت t ث th ج j ح h خ kh د d ذ dh ر r ز z س s ش sh ص s ض d ط t ظ z ع a غ gh ف f"
                + " ق q ك k ل l م m ن n ه h و w ي y ی y پ p چ ch گ g ک k "
                + "א a ב b ג g ד d ה h ו v ז z ח h ט t י y כ k ך k ל l מ m ם m נ n ן n ס s ע a פ p ף p "
                + "צ ts ץ ts ק k ר r ש sh ת t";
        String[] parts = table.split(" ");
        Map<Integer, String> letters = new HashMap<>();
        for (int i = 0; i + 1 < parts.length; i += 2) letters.put(parts[i].codePointAt(0), parts[i + 1]);
        return Map.copyOf(letters);
    }
}
