using System;
using System.IO;
using System.Text;

// Every line of standard input names a trial, a sample to read and a result to write, tabs between them.
internal static class Driver
{
    public static int Main()
    {
        Console.OutputEncoding = new UTF8Encoding(false);
        for (var line = Console.In.ReadLine(); line != null; line = Console.In.ReadLine())
        {
            var parts = line.Split('\t');
            try
            {
                File.WriteAllText(parts[2], Trials.RoundTrip(parts[0], File.ReadAllText(parts[1])));
            }
            catch (Exception failure)
            {
                var said = failure.ToString().Replace('\n', ' ').Replace('\r', ' ');
                Console.WriteLine(parts[0] + "\t" + parts[1] + "\t" + said);
            }
        }

        return 0;
    }
}
