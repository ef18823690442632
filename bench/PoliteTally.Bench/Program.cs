using System.Globalization;
using PoliteTally.Bench;

// One command prints the table: dotnet run -c Release --project bench/PoliteTally.Bench
// With "load" behind it, and minutes if wished, it prints what live lessons bear instead; with "students", what student pages ask;
// with "neighbours", what a lesson feels of others; with "taps", "folding", "names", "scores", "reports" or "readers", only those.
Console.WriteLine("| what | measured | beside | ratio |");
Console.WriteLine("|---|---|---|---|");
if (args is ["load", .. var rest])
{
    await LiveLoad.Run(rest is [var minutes] ? double.Parse(minutes, System.Globalization.CultureInfo.InvariantCulture) : 10);
    return;
}

if (args is ["students"])
{
    await StudentLoad.Run();
    return;
}

if (args is ["neighbours"])
{
    await Neighbours.Run();
    return;
}

if (args is ["taps"])
{
    await Acknowledging.Run();
    return;
}

if (args is ["folding"])
{
    Folding.Run();
    return;
}

if (args is ["layouts", .. var seeds])
{
    Layouts.Run(seeds is [var seed] ? int.Parse(seed, CultureInfo.InvariantCulture) : 1);
    return;
}

if (args is ["names"])
{
    NameBench.Run();
    return;
}

if (args is ["scores"])
{
    Scoring.Run();
    return;
}

if (args is ["reports"])
{
    Reporting.Run();
    return;
}

if (args is ["readers"])
{
    Readers.Run();
    return;
}

// First, while there is nothing else in memory.
Folding.Run();
await Acknowledging.Run();
Scoring.Run();
await Preparing.Run();
