using PoliteTally.Core.Names;

namespace PoliteTally.Bench;

/// <summary>A name as a meeting might show it.</summary>
/// <param name="Shown">The name.</param>
/// <param name="Student">Whose it is; null for somebody who is not on the roster.</param>
/// <param name="Kind">How it came to look as it does.</param>
internal sealed record Sighting(string Shown, Guid? Student, string Kind);

/// <summary>A made-up school of twelve scripts, and names as people join with: whole, in part, with slips, by a device, by somebody of theirs. The same seed makes the same.</summary>
internal sealed class MadeUpNames(int seed)
{
    // Given and family names, those of other scripts with their usual Latin form behind a stroke.
    private static readonly (string[] Given, string[] Family)[] Scripts =
    [
        (Words("Wren Tove Rowan Isla Callum Niamh Orla Ewan Skye Hamish Maeve Finlay Brodie Marta Jonas Elin Signe Astrid Anders Freja Torsten Ingvild Sven Liv Marius Daniel Daniela Maria Mario Gabriel Gabriela Jan Jana Julia Julie Robert Margaret Elizabeth Samuel Samira Alexander Alexandra Thomas Kristina Katarzyna Małgorzata Zofia Wojciech Łukasz Çağla Yaşar İlker Şebnem Trâm Dũng Nhung María José Lucía Íñigo Conceição João Zoë Noël François Hélène Björn Jürgen Käthe"),
            Words("Ashdown Bakke Quillfeather Holm Holmberg Lund Lundgren Lindqvist Berg Bergström Farrow Finch Hollis MacAskill O'Brannigan Sørbø Eriksdotter Petrosyan Rautio Castellani Duarte Prado Ruiz García Nowak Grzelak Wiśniewska Yıldız Kılıç Aksoy Nguyễn Phạm Trần Müller Schäfer Weiß Adler Grau Lefèvre Brontë Ångström Đorđević Šimić Kovač")),
        (Words("Милена|Milena Юлия|Yulia Ксения|Ksenia Алексей|Alexei Дмитрий|Dmitri Ирина|Irina Сергей|Sergei Жанна|Zhanna"), Words("Ковачева|Kovacheva Шевченко|Shevchenko Орлова|Orlova Чернов|Chernov Щукина|Shchukina Хворостов|Khvorostov")),
        (Words("Γιώργος|Giorgos Ελένη|Eleni Νίκος|Nikos Δήμητρα|Dimitra Θανάσης|Thanasis"), Words("Ανδρέου|Andreou Παπάς|Papas Ξένος|Xenos Χρήστου|Christou")),
        (Words("فاطمة|Fatima يوسف|Yousef ليلى|Layla كريم|Karim زينب|Zaynab"), Words("الحسن|Alhassan منصور|Mansour خليل|Khalil شريف|Sharif")),
        (Words("شیرین|Shirin کیان|Kian مریم|Maryam علی|Ali"), Words("کاظمی|Kazemi یزدانی|Yazdani کریمی|Karimi")),
        (Words("נועה|Noa איתן|Eitan שירה|Shira יונתן|Yonatan"), Words("לוי|Levi כהן|Cohen ברק|Barak")),
        (Words("आराध्या|Aaradhya विवान|Vivaan मीनाक्षी|Meenakshi रोहन|Rohan"), Words("शर्मा|Sharma अय्यर|Iyer पटेल|Patel")),
        (Words("梓涵|Zihan 浩然|Haoran 美玲|Meiling 子轩|Zixuan"), Words("王|Wang 李|Li 赵|Zhao 欧阳|Ouyang")),
        (Words("蓮|Ren 葵|Aoi さくら|Sakura 悠真|Yuma"), Words("渡辺|Watanabe 佐藤|Sato 高橋|Takahashi")),
        (Words("서연|Seoyeon 민준|Minjun 지우|Jiwoo 하은|Haeun"), Words("김|Kim 박|Park 이|Lee 최|Choi")),
        (Words("Անահիտ|Anahit Տիգրան|Tigran Նարե|Nare"), Words("Պետրոսյան|Petrosyan Սարգսյան|Sargsyan")),
        (Words("ნინო|Nino გიორგი|Giorgi თამარ|Tamar"), Words("კაპანაძე|Kapanadze ლომიძე|Lomidze")),
        (Words("สุภาพร|Supaporn อนันต์|Anan มาลี|Malee"), Words("ใจดี|Jaidee ศรีสุข|Srisuk")),
    ];

    private static readonly string[] Devices = ["phone", "iPad", "tablet", "laptop 2"];
    private static readonly string[] Relations = ["mum", "grandmother", "big brother", "dad"];

    private readonly Random _random = new(seed);

    private sealed record Made(RosterName Name, string LatinGiven, string LatinFamily, bool IsLatin);

    private readonly Dictionary<Guid, Made> _made = [];

    /// <summary>So many students, half of them with names in Latin letters; nobody has the whole name of another.</summary>
    public IReadOnlyList<RosterName> Roster(int students)
    {
        var roster = new List<RosterName>();
        var names = new HashSet<string>();
        for (var i = 0; roster.Count < students; i++)
        {
            var (given, family) = _random.Next(2) == 0 ? Scripts[0] : One(Scripts);
            var (g, f) = (Parts(One(given)), Parts(One(family)));
            // A large school has more names than fit here: a second given name tells them apart.
            if (!names.Add($"{g.Native} {f.Native}"))
            {
                var second = Parts(One(given));
                g = ($"{g.Native} {second.Native}", $"{g.Latin} {second.Latin}");
                if (!names.Add($"{g.Native} {f.Native}"))
                {
                    continue;
                }
            }

            var local = string.Concat($"{g.Latin}.{f.Latin}".ToLowerInvariant().Normalize(System.Text.NormalizationForm.FormD).Where(c => char.IsAsciiLetter(c) || c == '.'));
            var name = new RosterName(Guid.CreateVersion7(), g.Native, f.Native, null, $"N{i:00000}", $"{local}@pupils.example");
            roster.Add(name);
            _made[name.Id] = new Made(name, g.Latin, f.Latin, g.Latin == g.Native);
        }

        return roster;
    }

    /// <summary>A name as somebody joins with: mostly a student, at times a stranger.</summary>
    public Sighting Sighted(IReadOnlyList<RosterName> roster)
    {
        var made = _made[One(roster).Id];
        var (name, given, family) = (made.Name, made.Name.Given, made.Name.Family);
        var first = given.Split(' ')[0];
        return _random.Next(26) switch
        {
            0 or 1 => Is($"{given} {family}", "whole"),
            2 => Is($"{family}, {given}", "family name first"),
            3 => Is($"{made.LatinFamily} {made.LatinGiven}".ToUpperInvariant(), "in Latin letters, turned round"),
            4 => Is($"{made.LatinGiven} {made.LatinFamily}", "in Latin letters"),
            5 => Is($"{first} {family}", "first given name"),
            6 => Is(first, "given name alone"),
            7 => Is($"{first} {family[..1]}.", "with an initial"),
            8 => Is($"{made.LatinGiven} {Swapped(made.LatinFamily)}", "two letters swapped"),
            9 => Is($"{made.LatinGiven} {Doubled(made.LatinFamily)}", "a letter doubled"),
            10 => Is($"{Dropped(made.LatinGiven)} {made.LatinFamily}", "a letter left out"),
            11 => Is($"{given} {family}"[..Math.Max(3, $"{given} {family}".Length - 3)], "cut off"),
            12 => Is($"{first}'s {One(Devices)}", "a device"),
            13 => Is($"{given} {family} {_random.Next(7, 11)}{(char)('A' + _random.Next(3))}", "with the class"),
            14 => Is($"{given} {family} (she/her) 🌊", "with pronouns"),
            15 => Is($"guest - {given} {family}", "a guest"),
            16 => Is(name.Email!.Split('@')[0], "part of the address"),
            17 => Is(string.Concat($"{made.LatinGiven} {made.LatinFamily}".Normalize(System.Text.NormalizationForm.FormD).Where(char.IsAscii)).ToLowerInvariant(), "without accents"),
            18 => Is($"{given} {family}".Replace(" ", "", StringComparison.Ordinal), "in one word"),
            19 => Is($"{made.LatinGiven} {made.LatinFamily}".Replace('o', '0').Replace('e', '3'), "digits for letters"),
            20 => Nobody($"{first}'s {One(Relations)}", "somebody of theirs"),
            21 => Nobody($"{One(Scripts[0].Given)} {family}", "a namesake", roster),
            22 => Nobody($"{given} {family}berg", "a longer family name", roster),
            23 => Nobody(One(["iPhone", "Guest 4417", "user", "laptop"]), "nobody in particular"),
            24 => Nobody($"{One(Scripts[0].Given)} {One(Scripts[0].Family)}", "a stranger", roster),
            _ => Nobody($"Mrs {family}", "a grown-up"),
        };

        // Who shows a part of their name shows by chance the whole name of another, and then it is the other's.
        Sighting Is(string shown, string kind) => new(shown, (roster.FirstOrDefault(r => r.Id != name.Id && NameFolding.Fold($"{r.Given} {r.Family}") == NameFolding.Fold(shown)) ?? name).Id, kind);
    }

    // Who is a stranger by chance is not, if somebody on the roster is called so.
    private static Sighting Nobody(string shown, string kind, IReadOnlyList<RosterName>? roster = null) =>
        new(shown, roster?.FirstOrDefault(r => NameFolding.Fold($"{r.Given} {r.Family}") == NameFolding.Fold(shown))?.Id, kind);

    private string Swapped(string word) => word.Length < 4 ? word : _random.Next(1, word.Length - 2) is var i ? word[..i] + word[i + 1] + word[i] + word[(i + 2)..] : word;

    private string Doubled(string word) => word.Length < 3 ? word : _random.Next(1, word.Length - 1) is var i ? word[..i] + word[i] + word[i..] : word;

    private string Dropped(string word) => word.Length < 5 ? word : _random.Next(1, word.Length - 1) is var i ? word[..i] + word[(i + 1)..] : word;

    private T One<T>(IReadOnlyList<T> from) => from[_random.Next(from.Count)];

    private static string[] Words(string words) => words.Split(' ');

    private static (string Native, string Latin) Parts(string word) => word.Split('|') is [var native, var latin] ? (native, latin) : (word, word);
}
