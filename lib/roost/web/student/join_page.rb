# frozen_string_literal: true

module Roost
  module Web
    # The page at which a code is typed, and the one at which a session asks who comes.
    module JoinPage
      # @param refusal [String, nil]
      def join_page(code: nil, refusal: nil)
        page("front/join", title: "Join a lesson", layout: "layouts/plain", bundle: "seat", code: code, refusal: refusal)
      end

      # What a link to a session says of itself where it is pasted: no names.
      # @return [Hash]
      def shared_of(row)
        picture = Store::Sessions.new.lesson_of(row).class_slides.filter_map(&:picture).first
        what = row.self_paced ? "To do at your own speed" : "A lesson to join"
        { title: row.title, description: "#{what}, in Amber Roost",
          image: picture && "#{Roost.settings.base_url}#{media(picture.file)}" }
      end

      # Whose names of the list need their pass.
      # @return [Array<Integer>] ids of students
      def with_pass(row)
        return [] if !row.self_paced || row.options.names_alone

        Store::Students.new.then { |students| students.passes(Store::Records.new.class_of(row).map(&:id)).keys }
      end

      # @param row [Store::Sessions::Row] an open session
      # @param refusal [String, nil]
      def entry_page(row, refusal: nil)
        list = row.options.entry == "list" && row.class_id
        page("front/enter", title: "Join #{row.title}", layout: "layouts/plain", bundle: "seat", row: row, refusal: refusal,
                            shared: shared_of(row),
                            people: list ? Core::StudentName.told_apart(Store::Records.new.class_of(row)) : [],
                            teams: row.options.teams == "chosen" ? Store::Teams.new.of(row.id) : [],
                            taken: list ? Store::Seats.new.people(row.id) : [], passes: list ? with_pass(row) : [],
                            back: request.path_info.end_with?("/back"),
                            name: text("name").to_s[0, 80], extra: text("extra").to_s[0, 80], picked: number("student"),
                            team_id: number("team"))
      end
    end
  end
end
