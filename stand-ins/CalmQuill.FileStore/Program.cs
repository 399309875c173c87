using System.Globalization;
using CalmQuill.FileStore;

if (args.Length != 3)
{
    Console.Error.WriteLine("Usage: CalmQuill.FileStore PORT BUCKET KEY");
    return 1;
}

await using var shelves = await Shelves.Open(int.Parse(args[0], CultureInfo.InvariantCulture), args[1], args[2]);
Console.WriteLine($"Files are kept at {shelves.Address} until this ends (Ctrl-C).");
await Task.Delay(Timeout.Infinite);
return 0;
