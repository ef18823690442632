namespace PoliteTally.Formats;

/// <summary>Rows of a table while they are read: cells of many rows lie in one array, since there may be a hundred thousand rows.</summary>
/// <param name="expected">About how many rows there will be.</param>
internal sealed class TableRows(int expected)
{
    // At first room for so many cells, then for ever more.
    private const int Few = 256;
    private const int Many = 16_384;

    private string[] _block = new string[Few];
    private int _used;

    /// <summary>The rows that were added.</summary>
    public List<TableRow> All { get; } = new(expected);

    /// <summary>Adds a row, unless it has nothing in it.</summary>
    /// <param name="number">The row as a spreadsheet counts it, from 1.</param>
    /// <param name="cells">Its cells.</param>
    public void Add(int number, ReadOnlySpan<string> cells)
    {
        if (cells.Length > _block.Length - _used)
        {
            (_block, _used) = (new string[Math.Max(cells.Length, Math.Min(2 * _block.Length, Many))], 0);
        }

        foreach (var cell in cells)
        {
            if (cell.Length > 0)
            {
                cells.CopyTo(_block.AsSpan(_used));
                All.Add(new TableRow(number, new ArraySegment<string>(_block, _used, cells.Length)));
                _used += cells.Length;
                return;
            }
        }
    }
}
