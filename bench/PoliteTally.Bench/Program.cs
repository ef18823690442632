using PoliteTally.Bench;

// One command prints the table: dotnet run -c Release --project bench/PoliteTally.Bench
Console.WriteLine("| what | measured | beside | ratio |");
Console.WriteLine("|---|---|---|---|");
await Acknowledging.Run();
Folding.Run();
Scoring.Run();
await Preparing.Run();
