using PoliteTally.Core.Chat;

namespace PoliteTally.Demo;

/// <summary>What twelve-year-olds write in the chat when the lesson is about the weather.</summary>
internal static class ChatTexts
{
    public static readonly string[] Questions =
    [
        "so does low pressure mean it always rains?", "why does the needle jump when you tap the glass?",
        "is neap tide the one at half moon?", "how do they measure wind on the ferry when it moves too?",
        "does the sea breeze stop at night or turn round?", "what if two fronts meet?", "is a squall just a small storm?",
        "why is it called backing and not turning?", "can you feel pressure going down?", "do clouds weigh anything?",
        "why are there two tides a day and only one moon?", "which twelfth is the fastest?", "is fog a cloud then?",
        "does the tide come later on Nort than at Harbour?",
    ];

    private static readonly string[] Answers =
    [
        "backs = anticlockwise", "1014 and falling at ours", "spring, because the moon was full on Sunday", "cumulus I think",
        "3 twelfths in the third hour", "the land cools faster", "because warm air rises and the sea air moves in", "low water is at ten past four",
        "the isobars are close so windy", "it veered after the front", "high pressure, no wind at all here", "mares tails = cirrus",
    ];

    private static readonly string[] Ideas =
    [
        "we could put a stick in the sand and mark the tide every hour", "my gran says gulls inland mean wind coming",
        "what if we all read the barometer at the same time on Saturday", "you could draw the wind as an arrow for each island",
        "maybe the kelp on the pier shows the spring tide line", "we can compare with the harbour office log",
        "a jar and a balloon makes a barometer, we did it at home", "the smoke from the smokehouse shows the sea breeze",
    ];

    public static string Of(ChatKind kind, Random random)
    {
        var lines = kind switch { ChatKind.Question => Questions, ChatKind.Answer => Answers, _ => Ideas };
        return lines[random.Next(lines.Length)];
    }
}
