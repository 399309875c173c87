namespace CalmQuill.Core.Links;

/// <summary>Lays out a web of pages and the links between them, so that what is linked stands together.</summary>
/// <remarks>
/// Force-directed placement (Fruchterman and Reingold 1991): all nodes push each other away by k²/d, linked ones pull by d²/k, and steps grow shorter as it cools. It begins
/// on a sunflower spiral in the given order and uses no chance, so that the same web always looks the same. Groups begin beside each other, and a weak pull holds all together.
/// </remarks>
public static class PageWeb
{
    private const int Rounds = 220;
    private const double Gather = 1.3;

    /// <param name="count">How many nodes there are.</param>
    /// <param name="links">Pairs of nodes that are linked.</param>
    /// <param name="groups">For each node the group it belongs to, as a small number: nodes of a group begin beside each other.</param>
    /// <returns>x, y of each node, within 0…1.</returns>
    public static double[] Lay(int count, IReadOnlyList<(int From, int To)> links, IReadOnlyList<int> groups)
    {
        var places = new double[count * 2];
        if (count == 0)
            return places;
        var order = Enumerable.Range(0, count).OrderBy(node => groups[node]).ThenBy(node => node).ToArray();
        for (var i = 0; i < count; i++)
        {
            var (angle, radius) = (i * Math.PI * (3 - Math.Sqrt(5)), Math.Sqrt((i + 0.5) / count));
            places[order[i] * 2] = Math.Cos(angle) * radius;
            places[order[i] * 2 + 1] = Math.Sin(angle) * radius;
        }

        var apart = Math.Sqrt(Math.PI / count);
        var forces = new double[count * 2];
        for (var round = 0; round < Rounds; round++)
        {
            Array.Clear(forces);
            Push(places, forces, apart);
            foreach (var (from, to) in links)
                Pull(places, forces, from, to, apart);
            Step(places, forces, apart, 0.25 * (1 - round / (double)Rounds) * apart * 2);
        }

        return Fit(places);
    }

    private static void Push(double[] places, double[] forces, double apart)
    {
        for (var i = 0; i < places.Length; i += 2)
        {
            for (var j = i + 2; j < places.Length; j += 2)
            {
                double dx = places[i] - places[j],
                    dy = places[i + 1] - places[j + 1],
                    square = Math.Max(dx * dx + dy * dy, 1e-6);
                var force = apart * apart / square;
                forces[i] += dx * force;
                forces[i + 1] += dy * force;
                forces[j] -= dx * force;
                forces[j + 1] -= dy * force;
            }
        }
    }

    private static void Pull(double[] places, double[] forces, int from, int to, double apart)
    {
        double dx = places[from * 2] - places[to * 2],
            dy = places[from * 2 + 1] - places[to * 2 + 1],
            force = Math.Sqrt(dx * dx + dy * dy) / apart;
        forces[from * 2] -= dx * force;
        forces[from * 2 + 1] -= dy * force;
        forces[to * 2] += dx * force;
        forces[to * 2 + 1] += dy * force;
    }

    private static void Step(double[] places, double[] forces, double apart, double most)
    {
        for (var i = 0; i < places.Length; i += 2)
        {
            // The pull to the middle keeps what is not linked from drifting off, and pieces of the web near each other.
            double fx = forces[i] - places[i] * apart * Gather,
                fy = forces[i + 1] - places[i + 1] * apart * Gather,
                length = Math.Sqrt(fx * fx + fy * fy);
            if (length < 1e-12)
                continue;
            var step = Math.Min(length, most) / length;
            places[i] += fx * step;
            places[i + 1] += fy * step;
        }
    }

    /// <summary>Into the square from 0 to 1, with equal scales; a single node stands in the middle.</summary>
    private static double[] Fit(double[] places)
    {
        double left = double.MaxValue,
            top = double.MaxValue,
            right = double.MinValue,
            bottom = double.MinValue;
        for (var i = 0; i < places.Length; i += 2)
        {
            (left, right) = (Math.Min(left, places[i]), Math.Max(right, places[i]));
            (top, bottom) = (Math.Min(top, places[i + 1]), Math.Max(bottom, places[i + 1]));
        }

        var size = Math.Max(Math.Max(right - left, bottom - top), 1e-9);
        for (var i = 0; i < places.Length; i += 2)
        {
            places[i] = 0.5 + (places[i] - (left + right) / 2) / size;
            places[i + 1] = 0.5 + (places[i + 1] - (top + bottom) / 2) / size;
        }

        return places;
    }
}
