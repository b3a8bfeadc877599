# frozen_string_literal: true

require "tmpdir"

module Roost
  module Operations
    # Puts a student's own copy on paper: a PDF of what OwnCopy gives. A class that wants its copies at once takes turns.
    class CopyAsPdf
      # At a time in a process; others are told to come again.
      TURNS = SizedQueue.new(2)

      # @param copy [OwnCopy::Copy]
      # @param about [String] whose and of when it is
      # @param drawings [Hash{String=>String}] slide id to SVG, of answers that are pictures
      # @return [String, nil] PDF; nil when it could not be made now
      def call(copy, about:, drawings: {})
        ConcurrencyLimit.take(TURNS) do
          Dir.mktmpdir do |folder|
            pictures = PaperPictures.new(folder)
            pages = copy.pages.map { |page| page(page, drawings[page.slide.id], pictures) }
            pages << more(copy.notes) if copy.notes.any?
            Exchange::CopySheet.pdf({ title: copy.row.title, about: about, pages: pages })
          end
        end
      end

      private

      # Notes on what is on no page.
      def more(notes) = { heading: "", texts: [], pictures: [], rows: notes.map { |note| { is: :note, text: note } } }

      # @return [Hash] see Exchange::CopySheet.pdf
      def page(page, drawing, pictures)
        slide = page.slide
        { heading: slide.heading.empty? ? slide.name : slide.heading, texts: [slide.text, slide.aside].reject(&:empty?),
          pictures: drawing ? [] : slide.pictures.filter_map { |picture| pictures.kept(picture.file) },
          rows: [*(answer(page, drawing && pictures.drawn(drawing)) if slide.prompt), *said(page)] }
      end

      def answer(page, drawn)
        prompt = page.slide.prompt
        outcome = page.outcome
        rows = [{ is: :given, **(drawn ? { picture: drawn } : { text: given(prompt, outcome) }) }]
        rows << { is: :outcome, text: Core::Session::Outcome::IN_WORDS.fetch(outcome.status) } if outcome.mark && page.told?
        page.explained? ? rows + explained(prompt, outcome) : rows
      end

      def explained(prompt, outcome)
        right = prompt.right_in_words if outcome.mark.to_r < 1
        rows = right ? [{ is: :right, text: right }] : []
        prompt.explanation.empty? ? rows : [*rows, { is: :why, markdown: prompt.explanation }]
      end

      def given(prompt, outcome)
        return "no answer" unless outcome.answer

        outcome.answer.readable? ? prompt.plain(outcome.answer.value) : outcome.answer.typed_text
      end

      def said(page)
        { comment: page.comment, note: page.note }.reject { |_, text| text.empty? }.map { |is, text| { is: is, text: text } }
      end
    end
  end
end
