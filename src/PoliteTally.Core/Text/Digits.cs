using System.Globalization;
using System.Text;

namespace PoliteTally.Core.Text;

/// <summary>Digits of every script.</summary>
public static class Digits
{
    /// <summary>The text with decimal digits of any script as those from 0 to 9, and everything else as it is: “٣:٤٥” is “3:45”.</summary>
    public static string Plain(string text)
    {
        if (Ascii.IsValid(text) || !text.Any(c => c > '\u007F' && (char.IsDigit(c) || char.IsSurrogate(c))))
        {
            return text;
        }

        var plain = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            if (Rune.GetUnicodeCategory(rune) == UnicodeCategory.DecimalDigitNumber)
            {
                plain.Append((char)('0' + (int)Rune.GetNumericValue(rune)));
            }
            else
            {
                plain.Append(rune.ToString());
            }
        }

        return plain.ToString();
    }
}
