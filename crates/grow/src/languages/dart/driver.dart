import 'dart:io';

import 'trials.dart';

/// Every line of standard input names a trial, a sample to read and a result to write, tabs between them.
void main() {
  for (var line = stdin.readLineSync(); line != null; line = stdin.readLineSync()) {
    final [place, sample, result] = line.split('\t');
    try {
      File(result).writeAsStringSync(trials[place]!(File(sample).readAsStringSync()));
    } catch (failure) {
      print('$place\t$sample\t${'$failure'.replaceAll(RegExp(r'\s+'), ' ')}');
    }
  }
}
