# frozen_string_literal: true

# Copies of questions that were made before copies knew where they come from are linked to the first of one teacher's that asks
# the same with the same key. Seats are found by their student.
module Origins
  class << self
    # What may differ between two that are the same question.
    def beside
      %w[id origin points time_limit practice may_change subtopics standards difficulty explanation hint bloom depth]
    end

    # @return [Hash{String=>String}] id of a question to the first that is the same, of all that have no origin
    def links(database)
      rows = database[:lesson_slides].join(:lessons, id: :lesson_id).order(:lesson_id, :slide_id)
                                     .select(Sequel[:lessons][:account_id], :document)
      firsts = {}
      rows.each_with_object({}) do |row, links|
        prompt = row[:document]["prompt"] or next
        heading = row[:document]["heading"].to_s.strip
        next if heading.empty? || prompt["origin"]

        same = [row[:account_id], heading, prompt.except(*beside)]
        first = firsts[same] ||= prompt["id"]
        links[prompt["id"]] = first unless first == prompt["id"]
      end
    end

    # @param slide [Hash] document
    # @return [Hash, nil] the slide with the origin of its question; nil where there is nothing to say
    def linked(slide, links)
      prompt = slide["prompt"]
      origin = prompt && !prompt["origin"] && links[prompt["id"]]
      origin && slide.to_h.merge("prompt" => prompt.to_h.merge("origin" => origin))
    end

    def link(database)
      links = links(database)
      return if links.empty?

      database[:lesson_slides].select(:lesson_id, :slide_id, :document).all.each do |row|
        slide = linked(row[:document], links) or next
        database[:lesson_slides].where(row.slice(:lesson_id, :slide_id)).update(document: Sequel.pg_jsonb(slide))
      end
      database[:sessions].select(:id, :lesson).paged_each(rows_per_fetch: 50) { |row| link_session(database, row, links) }
    end

    private

    def link_session(database, row, links)
      slides = row[:lesson]["slides"].to_a.map { |slide| linked(slide, links) || slide }
      return if slides == row[:lesson]["slides"].to_a

      database[:sessions].where(id: row[:id]).update(lesson: Sequel.pg_jsonb(row[:lesson].to_h.merge("slides" => slides)))
    end
  end
end

Sequel.migration do
  up do
    Origins.link(self)
    add_index :seats, :student_id, where: Sequel.~(student_id: nil)
  end

  # Origins stay: they say nothing false of what was there before.
  down { drop_index :seats, :student_id }
end
