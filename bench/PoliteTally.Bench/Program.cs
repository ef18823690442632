using PoliteTally.Bench;

// One command prints the table: dotnet run -c Release --project bench/PoliteTally.Bench
// With "load" behind it, and minutes if wished, it prints what live lessons bear instead; with "students", what student pages ask;
// with "neighbours", what a lesson feels of others; with "folding", only what folding takes.
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

if (args is ["folding"])
{
    Folding.Run();
    return;
}

await Acknowledging.Run();
Folding.Run();
Scoring.Run();
await Preparing.Run();
