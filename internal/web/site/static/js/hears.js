// Hears: lines on which the server tells what happens.
Alpine.store("hears", {
  // line opens one and lets begin say what becomes of its words. A line that broke is opened anew: the
  // browser does so by itself, but not where a proxy answered that nobody is there. stands is told each
  // time the line stands, and whether it was broken before.
  line(address, begin, stands = () => {}) {
    let source, later;
    let broken = false;
    const open = () => {
      source = new EventSource(address);
      begin(source);
      source.onopen = () => {
        stands(broken);
        broken = false;
      };
      source.onerror = () => {
        broken = true;
        if (source.readyState === EventSource.CLOSED) later = setTimeout(open, 1000);
      };
    };
    open();
    return {
      close() {
        clearTimeout(later);
        source.close();
      },
    };
  },
});
