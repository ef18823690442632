using System.Text.RegularExpressions;

namespace PoliteTally.Formats.Lines;

/// <summary>What a program writes into a chat, and nobody said: that a message is gone or changed, that somebody came, that somebody pressed a sign.</summary>
internal static partial class SaidByPrograms
{
    /// <summary>What stands in brackets beside a message that was changed.</summary>
    public const string EditedWords = "edited|bearbeitet|modifié|modificado|editado|modificato|bewerkt|redigerad|redigert|redigeret|muokattu|edytowano|изменено|breytt|rættað";

    // No sentence of a program is longer, but for the words that it repeats.
    private const int Longest = 300;

    /// <summary>The words of a message without what says that it was changed.</summary>
    public static string WithoutMarks(string words) => words.Length > 0 && words[^1] is ')' or ']' ? Edited().Replace(words, "") : words;

    /// <summary>Whether all of it was written by a program.</summary>
    public static bool IsAll(string words) => words.Length <= Longest && (Gone().IsMatch(words) || Came().IsMatch(words) || Pressed().IsMatch(words));

    [GeneratedRegex(@"\s*[(\[](?:" + EditedWords + @")[)\]]$", RegexOptions.IgnoreCase)]
    private static partial Regex Edited();

    [GeneratedRegex(
        @"^\W*(?:this message (?:was|has been) (?:deleted|removed|unsent)|message (?:deleted|removed|unsent|withdrawn)|(?:deleted|unsent) a message|diese nachricht wurde gelöscht|nachricht gelöscht|ce message a été supprimé|message supprimé|(?:este|se eliminó este) mensaje(?: fue eliminado)?|mensaje eliminado|esta mensagem foi (?:apagada|eliminada)|questo messaggio è stato eliminato|messaggio eliminato|dit bericht is verwijderd|bericht verwijderd|meddelandet (?:har tagits bort|togs bort)|meldingen (?:er|ble) slettet|beskeden (?:er|blev) slettet|viesti (?:on )?poistettu|wiadomość (?:została )?usunięta|сообщение удалено|skilaboðunum var eytt|boðini eru strikað)\W*$",
        RegexOptions.IgnoreCase)]
    private static partial Regex Gone();

    [GeneratedRegex(
        @"^\W*(?:(?:has |have |just )?(?:joined|left|entered) (?:the |this )?(?:meeting|chat|call|room|lesson|class|session|conversation)|(?:hat|ist) (?:dem|das|der)\b.{0,40}\b(?:beigetreten|verlassen|betreten)|a (?:rejoint|quitté) (?:la réunion|l['’]appel|la conversation)|(?:se unió a|salió de|entró en) la (?:reunión|llamada|sala)|(?:entrou na|saiu da) (?:reunião|chamada|sala)|(?:anslöt till|lämnade) mötet|(?:ble med i|forlot) møtet|(?:liittyi|poistui) kokoukse(?:en|sta))\W*$",
        RegexOptions.IgnoreCase)]
    private static partial Regex Came();

    [GeneratedRegex(
        @"^\W*(?:reacted (?:to\b.{1,250}\b)?with\b.{1,40}|reacted to [“""«„].{1,250}[”""»“].{0,40}|removed an? .{1,30} (?:reaction|heart|like) from .{1,200}|(?:hat mit|a réagi avec|reaccionó con|reagiu com|reagerade med|reagerte med) .{1,60})$",
        RegexOptions.IgnoreCase)]
    private static partial Regex Pressed();
}
