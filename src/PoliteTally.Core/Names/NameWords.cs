using System.Collections.Frozen;

namespace PoliteTally.Core.Names;

/// <summary>
/// Words that stand beside names in a meeting and are none, in the languages that meet in a class. All are folded: lower case, no accents. A word that is
/// missing here makes a name asked about, never taken for somebody else's.
/// </summary>
internal static class NameWords
{
    /// <summary>What people join a meeting with: whatever is owned and is one of these is its owner's.</summary>
    public static readonly FrozenSet<string> Devices = Of("""
        phone iphone smartphone mobile mobil cell cellphone ipad tablet tab laptop notebook computer pc desktop mac macbook imac android kindle
        galaxy pixel browser device web app webcam
        telefon handy rechner computers telefoon mobiel tablette telephone portable ordinateur ordi telefono movil celular portatil ordenador computadora
        tableta cellulare computadora telemovel computador puhelin kannykka tietokone lappari padda mobiltelefon dator datamaskin mobilen telefonu bilgisayar
        telefonja gep komputer komorka telefonul kompjuter kompiuter noutbuk
        телефон планшет компьютер ноутбук телефона смартфон комп
        手机 电脑 平板 笔记本 手機 電腦 スマホ 携帯 パソコン タブレット 핸드폰 컴퓨터 태블릿 휴대폰 هاتف جوال موبایل گوشی لپتاپ फोन
        """);

    /// <summary>Whether what somebody owns is a device. Small computers have ever new names that end in "book"; by itself such a word may be a family name.</summary>
    public static bool IsOwnedDevice(string word) => Devices.Contains(word) || word.EndsWith("book", StringComparison.Ordinal);

    /// <summary>What says that somebody takes part, and nothing else: the name beside it is theirs.</summary>
    public static readonly FrozenSet<string> PlainRoles = Of("""
        guest student pupil participant attendee me you self gast invite invitado invitada ospite convidado gosc gost vendeg vieras gjest
        schuler schulerin eleve alumno alumna estudiante studente aluno aluna elev oppilas student uczen гость ученик 学生 생徒 게스트
        """);

    /// <summary>What says that somebody is in charge: the name beside it may be a namesake's.</summary>
    public static readonly FrozenSet<string> WeightyRoles = Of("""
        host cohost co teacher tutor moderator presenter organizer organiser admin staff office assistant coach head
        lehrer lehrerin professeur profesor profesora professore insegnante maestro maestra larare opettaja ogretmen nauczyciel учитель 老师 先生 선생님
        """);

    /// <summary>Titles of grown-ups; one may be a name all the same.</summary>
    public static readonly FrozenSet<string> Titles = Of("""
        mr mrs ms miss mx dr prof sir madam herr frau monsieur madame mme mlle senor senora senorita sr sra sig signor signora dhr mevr pan pani bay hanim
        господин госпожа
        """);

    /// <summary>Relations: what follows or precedes is whose relation it is, and not who it is.</summary>
    public static readonly FrozenSet<string> Relations = Of("""
        mum mom mummy mommy mam mother dad daddy father parent parents guardian gran granny grandma grandmother grandad grandpa grandfather nan nana aunt auntie
        uncle sister brother sis bro sibling family carer nanny stepmum stepdad stepmother stepfather wife husband
        mutter vater mama papa oma opa eltern tante onkel schwester bruder mere pere maman grandmere grandpere parents soeur frere tante oncle
        madre padre abuela abuelo tia tio hermana hermano familia padres mae pai avo irma irmao nonna nonno sorella fratello genitori
        moeder vader ouders zus broer mor far mormor farmor morfar farfar foralder syster bror forelder aiti isa vanhemmat sisko veli anne baba abla agabey
        matka ojciec tata rodzic babcia dziadek anya apa мама папа мать отец бабушка дедушка сестра брат
        妈妈 爸爸 母亲 父亲 お母さん お父さん 母 父 엄마 아빠 ام اب مادر پدر
        """);

    /// <summary>What stands between a thing or a relation and whose it is.</summary>
    public static readonly FrozenSet<string> Between = Of("of von vom de del do da di du d av til van od od z");

    /// <summary>Beside nobody's name: a device, a guest, a user, and nothing that says whose or who.</summary>
    public static readonly FrozenSet<string> Nobody = Of("user unknown anonymous call caller conference room meeting unbekannt usuario utilisateur anonym anonyme desconocido gebruiker");

    private static FrozenSet<string> Of(string words) =>
        words.Split([' ', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries).Select(w => NameFolding.Fold(w) is { Length: > 0 } folded ? folded : w).ToFrozenSet(StringComparer.Ordinal);
}
