interface Reply {
  id: number;
  answer?: unknown;
  fault?: string;
}

/** Questions to a worker, each with its answer. */
export class AskWorker<Question> {
  #asked = 0;

  constructor(readonly worker: Worker) {}

  ask<Answer>(question: Question): Promise<Answer> {
    const id = ++this.#asked;
    return new Promise((resolve, reject) => {
      const hear = ({ data }: MessageEvent<Reply>) => {
        if (data.id !== id) return;
        this.worker.removeEventListener('message', hear);
        if (data.answer !== undefined) resolve(data.answer as Answer);
        else reject(new Error(data.fault));
      };
      this.worker.addEventListener('message', hear);
      this.worker.postMessage({ id, question });
    });
  }

  close() {
    this.worker.terminate();
  }
}

/** What a worker does: it answers each question, or says what went wrong. */
export function answerQuestions<Question>(answer: (question: Question) => unknown) {
  self.onmessage = async ({ data }: MessageEvent<{ id: number; question: Question }>) => {
    const { id, question } = data;
    try {
      self.postMessage({ id, answer: await answer(question) });
    } catch (error) {
      self.postMessage({ id, fault: error instanceof Error ? error.message : String(error) });
    }
  };
}
