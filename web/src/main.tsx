document.title = 'Nimble Bell';
